import { grinderSheetSchema, type GrinderSheet } from '@tempera/contract/bar';
import type { Kept, SheetChange } from '@tempera/contract/sheet';
import { problemSchema } from '@tempera/contract/problem';
import { sentences } from '@tempera/contract/sentences';
import { usualUnits } from '@tempera/core/house';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem } from '../kernel/api.ts';
import { readIn } from '../kernel/units.ts';
import { renderPart } from '../ui/testRender.tsx';
import { differences, draftOf, readDraft, type Field } from './fields.ts';
import { SheetEditor } from './SheetEditor.tsx';

afterEach(() => {
  cleanup();
  readIn(usualUnits);
});

const american = { mass: 'oz', volume: 'fl oz', temperature: '°F', pressure: 'psi' } as const;
const fields: readonly Field[] = [
  { type: 'text', name: 'name', label: 'Name' },
  { type: 'number', name: 'doseG', label: 'Dose', unit: 'g', step: 0.1, digits: 1, quantity: 'doseG' },
  { type: 'number', name: 'tempC', label: 'Water', unit: '°C', step: 0.5, optional: true },
  { type: 'time', name: 'opensMin', label: 'Opens' },
  { type: 'yes', name: 'decaf', label: 'Decaf' },
  {
    type: 'list',
    name: 'freezes',
    label: 'Frozen',
    one: 'stay',
    blank: { on: '' },
    of: [{ type: 'day', name: 'on', label: 'On' }],
  },
  { type: 'number', name: 'taste.low', label: 'Taste', unit: '', step: 1 },
];
const sheet = {
  name: 'House',
  doseG: 18.03,
  tempC: null,
  opensMin: 450,
  decaf: false,
  freezes: [{ on: '2031-05-01' }],
  taste: { low: 4 },
};

describe('a sheet in a form', () => {
  it('comes back as it was when nothing was touched, in whatever unit it is read', () => {
    for (const units of [usualUnits, american]) {
      readIn(units);
      expect(readDraft(fields, draftOf(fields, sheet), sheet)).toEqual(sheet);
    }
  });

  it('is typed in the unit that the person reads, with a comma or a point', () => {
    readIn(american);
    const draft = draftOf(fields, sheet);
    expect(draft.doseG).toBe('0.636');
    const typed = readDraft(fields, { ...draft, doseG: '0,65', tempC: '200', opensMin: '06:05' }, sheet);
    expect(typed.doseG).toBeCloseTo(18.427, 3);
    expect(typed.tempC).toBeCloseTo(93.333, 3);
    expect(typed.opensMin).toBe(365);
  });

  it('keeps what is no number as no number, for the schema to refuse', () => {
    const draft = { ...draftOf(fields, sheet), doseG: 'eighteen', opensMin: '6 o’clock' };
    expect(readDraft(fields, draft, sheet)).toMatchObject({ doseG: NaN, opensMin: NaN });
  });

  it('says in words what differs', () => {
    const after = { ...sheet, doseG: 17, decaf: true, freezes: [], taste: { low: 5 } };
    expect(differences(fields, sheet, after)).toEqual([
      { label: 'Dose', before: '18.0 g', after: '17.0 g' },
      { label: 'Decaf', before: 'no', after: 'yes' },
      { label: 'Frozen', before: 'Thu 1 May', after: 'none' },
      { label: 'Taste', before: '4', after: '5' },
    ]);
  });
});

const grinderFields: readonly Field[] = [
  { type: 'text', name: 'name', label: 'Name' },
  { type: 'yes', name: 'stepped', label: 'Clicks' },
  { type: 'number', name: 'stepMarks', label: 'Smallest step', unit: 'marks', step: 0.1 },
  { type: 'choice', name: 'finer', label: 'Finer is', options: [{ value: 'down', label: 'a smaller number' }] },
  { type: 'number', name: 'dialMin', label: 'Dial begins at', unit: '', step: 1 },
  { type: 'number', name: 'dialMax', label: 'Dial ends at', unit: '', step: 1 },
  { type: 'number', name: 'seedSetting', label: 'Stood at', unit: '', step: 1 },
  { type: 'number', name: 'secondsPerMark', label: 'A mark', unit: 's', step: 0.5, optional: true },
  {
    type: 'number',
    name: 'retentionG',
    label: 'Held between burrs and spout',
    unit: 'g',
    step: 0.5,
    digits: 1,
    optional: true,
  },
  { type: 'number', name: 'rateGps', label: 'Grinds', unit: 'g/s', step: 0.1, optional: true },
  { type: 'number', name: 'doseSingleS', label: 'Single', unit: 's', step: 0.1, optional: true },
  { type: 'number', name: 'doseDoubleS', label: 'Double', unit: 's', step: 0.1, optional: true },
  { type: 'number', name: 'burrKg', label: 'Ground', unit: 'kg', step: 10, optional: true },
  { type: 'day', name: 'burrsOn', label: 'Counted on', optional: true },
];

const kept: Kept<GrinderSheet> = {
  id: '00000000-0000-4000-8000-000000000001',
  revision: 3,
  retired: false,
  changedBy: 'Ines',
  changedAt: '2031-05-04T06:00:00Z',
  sheet: {
    name: 'House',
    stepped: true,
    stepMarks: 1,
    finer: 'down',
    dialMin: 1,
    dialMax: 60,
    seedSetting: 30,
    secondsPerMark: 2.5,
    retentionG: null,
    readsDial: true,
    unlocksFirst: false,
    doser: 'direct',
    rateGps: 2.1,
    doseSingleS: null,
    doseDoubleS: 8.8,
    burrKg: null,
    burrsOn: null,
    burrLifeKg: null,
  },
};

type Save = (change: SheetChange<GrinderSheet>) => Promise<unknown>;

function editor(current: Kept<GrinderSheet>, save: Save | null, onDone = (): void => undefined) {
  return (
    <SheetEditor
      schema={grinderSheetSchema}
      fields={grinderFields}
      current={current}
      fresh={{}}
      save={save}
      onDone={onDone}
      timeZone="UTC"
    />
  );
}
const type = (label: string | RegExp, text: string): void => {
  fireEvent.change(screen.getByRole('textbox', { name: label }), { target: { value: text } });
};
const press = (name: string): void => void fireEvent.click(screen.getByRole('button', { name }));
const changedMeanwhile = (): ApiProblem =>
  new ApiProblem(
    problemSchema.parse({
      type: 'x',
      title: 'x',
      status: 409,
      detail: sentences.changedMeanwhile,
      code: 'changedMeanwhile',
    }),
  );

describe('the sheet editor', () => {
  it('keeps a sheet whole, based on what was seen', async () => {
    const save = vi.fn<Save>(() => Promise.resolve());
    const onDone = vi.fn();
    renderPart(editor(kept, save, onDone));
    type(/^Held between/, '3,5');
    press('Keep it so');
    await waitFor(() => expect(onDone).toHaveBeenCalled());
    expect(save).toHaveBeenCalledWith({ basedOn: 3, retired: false, sheet: { ...kept.sheet, retentionG: 3.5 } });
  });

  it('leaves whoever has gone elsewhere where they are', async () => {
    let isKept = (): void => undefined;
    const save = vi.fn<Save>(() => new Promise<void>((resolve) => (isKept = resolve)));
    const onDone = vi.fn();
    renderPart(editor(kept, save, onDone));
    press('Keep it so');
    window.history.pushState(null, '', '/elsewhere');
    isKept();
    await waitFor(() => expect(screen.getByRole('button', { name: 'Keep it so' })).toHaveProperty('disabled', false));
    expect(onDone).not.toHaveBeenCalled();
  });

  it("refuses with the contract's sentence at the field, and keeps what was typed", async () => {
    const save = vi.fn<Save>(() => Promise.resolve());
    renderPart(editor(kept, save));
    type(/^Dial begins/, '90');
    press('Keep it so');
    await waitFor(() => expect(screen.getAllByRole('alert').length).toBeGreaterThan(0));
    expect(screen.getByText(sentences.minOverMax)).toBeTruthy();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: /^Dial begins/ }).value).toBe('90');
    expect(save).not.toHaveBeenCalled();
  });

  it('shows both when somebody was faster, and goes on with mine only when told', async () => {
    const save = vi.fn<Save>(() => Promise.reject(changedMeanwhile()));
    const { rerender } = renderPart(editor(kept, save));
    type(/^Held between/, '4');
    press('Keep it so');
    await waitFor(() => expect(save).toHaveBeenCalled());
    rerender(editor({ ...kept, revision: 4, changedBy: 'Ada', sheet: { ...kept.sheet, rateGps: 2.6 } }, save));
    const alert = await screen.findByRole('alert');
    expect(alert.textContent).toContain('Ada changed this');
    expect(alert.textContent).toContain('2.6 g/s');
    expect(alert.textContent).toContain('4.0 g');
    press('Go on with mine');
    press('Keep it so');
    await waitFor(() => expect(save).toHaveBeenCalledTimes(2));
    expect(save.mock.calls[1]?.[0]).toMatchObject({ basedOn: 4, sheet: { retentionG: 4, rateGps: 2.1 } });
  });

  it("follows somebody else's change while nothing was touched, and takes theirs when asked to", async () => {
    const save = vi.fn<Save>(() => Promise.resolve());
    const { rerender } = renderPart(editor(kept, save));
    const theirs = { ...kept, revision: 4, sheet: { ...kept.sheet, name: 'Front' } };
    rerender(editor(theirs, save));
    const name = (): string => screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value;
    await waitFor(() => expect(name()).toBe('Front'));
    type('Name', 'Mine');
    rerender(editor({ ...theirs, revision: 5, sheet: { ...kept.sheet, name: 'Back' } }, save));
    fireEvent.click(await screen.findByRole('button', { name: 'Take theirs' }));
    await waitFor(() => expect(name()).toBe('Back'));
  });

  it('is for reading only where somebody may not change it', () => {
    renderPart(editor(kept, null));
    expect(screen.getByText(/Only a head barista or the office/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Keep it so' })).toBeNull();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).closest('fieldset')?.disabled).toBe(true);
  });
});
