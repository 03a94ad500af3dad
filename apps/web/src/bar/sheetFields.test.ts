import { sheetSchemas } from '@tempera/contract/sheets';
import { usualUnits } from '@tempera/core/house';
import { afterEach, describe, expect, it } from 'vitest';
import type { Field } from '../forms/index.ts';
import { differences } from '../forms/index.ts';
import { readIn } from '../kernel/units.ts';
import {
  basketFields,
  counterFields,
  fixtureFields,
  freshPieces,
  grinderFields,
  groupFields,
  machineFields,
} from './sheetFields.ts';

afterEach(() => readIn(usualUnits));

const fields = {
  machine: machineFields,
  group: groupFields([], []),
  grinder: grinderFields,
  basket: basketFields,
  fixture: fixtureFields,
  counter: counterFields,
} satisfies Partial<Record<keyof typeof sheetSchemas, readonly Field[]>>;
const kinds = Object.keys(fields) as (keyof typeof fields)[];

describe('the form of every piece', () => {
  it.each(kinds)('%s: asks for all that its sheet keeps, and for nothing else', (kind) => {
    // A key that the form forgot would be lost at the first change.
    expect(fields[kind].map(({ name }) => name).sort()).toEqual(Object.keys(sheetSchemas[kind].shape).sort());
  });

  it.each(kinds)('%s: offers choices that its schema takes', (kind) => {
    for (const field of fields[kind]) {
      if (field.type !== 'choice' || field.options.length === 0) continue;
      const schema = (
        sheetSchemas[kind].shape as Record<string, { safeParse: (value: unknown) => { success: boolean } }>
      )[field.name];
      for (const { value } of field.options)
        expect(schema?.safeParse(value).success, `${field.name} ${value}`).toBe(true);
    }
  });

  it('starts a new machine with the gauges of the trade', () => {
    expect(freshPieces.machine.gauges.map(({ min, max }) => [min, max])).toEqual([
      [1, 1.5],
      [8, 9.5],
    ]);
  });

  it('says a basket in the units of the person', () => {
    const wider = { ...freshPieces.basket, maxG: 20 };
    expect(differences(basketFields, freshPieces.basket, wider)).toEqual([
      { label: 'Holds at most', before: '19.0 g', after: '20.0 g' },
    ]);
    readIn({ ...usualUnits, mass: 'oz' });
    expect(differences(basketFields, freshPieces.basket, wider)[0]?.after).toBe('0.705 oz');
  });
});
