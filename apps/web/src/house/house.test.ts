import type { RecipeVersion } from '@tempera/contract/house';
import { usualHouse } from '@tempera/contract/policy';
import { unitSchools, usualUnits } from '@tempera/core/house';
import { afterEach, describe, expect, it } from 'vitest';
import { reasonSaid } from '../ui/adviceWords.ts';
import { readQuantity } from '../ui/NumberField.tsx';
import { findingWord } from './findingWord.ts';
import { bars, degrees, grams, kilograms } from '../kernel/format.ts';
import { readIn } from '../kernel/units.ts';
import { asksByPolicy } from './example.ts';
import { houseAsks, stopWord } from './houseAsks.ts';
import { policyChanges } from './policyWords.ts';
import { inOutWord, timeWord } from './recipeWords.ts';

afterEach(() => readIn(usualUnits));

const recipe = {
  doseG: 18,
  yieldG: 36,
  yieldToleranceG: 1.5,
  timeMinS: 25,
  timeMaxS: 30,
  timeFrom: 'pump',
  firstDropMinS: 4,
  firstDropMaxS: 8,
  soakS: 0,
  pauseS: 0,
} as RecipeVersion;

describe('what the house asks', () => {
  it('follows its schools', () => {
    const slow = { yieldG: 36, timeS: 32 };
    expect(houseAsks(usualHouse, slow, recipe, 1)).toEqual(['May be served']);
    const strict = { ...usualHouse, whenTorn: 'both', tastes: 'every', puck: 'noted' } as const;
    expect(houseAsks(strict, slow, recipe, 1)).toEqual(['Not to be served', 'taste it', 'look at the puck']);
    expect(stopWord(usualHouse, recipe)).toBe('Stop at 34.4 g: the last drops make 36.0 g');
    expect(stopWord({ endsShot: 'time' }, recipe)).toBe('Stop at 27.5 s, then weigh');
  });

  it('comes out differently on the example for every school that is about it', () => {
    const usual = asksByPolicy(usualHouse).map(({ asks }) => asks);
    const changes = [
      { dosing: 'levelled' },
      { endsShot: 'volume' },
      { whenTorn: 'both' },
      { tastes: 'every' },
      { puck: 'noted' },
      { tasteLever: 'grind' },
    ] as const;
    for (const change of changes) {
      expect(asksByPolicy({ ...usualHouse, ...change }).map(({ asks }) => asks)).not.toEqual(usual);
    }
  });

  it('names what a version changed', () => {
    expect(policyChanges(usualHouse, { ...usualHouse, tasteLever: 'grind', risk: 0.1 })).toEqual([
      'The numbers fit, the taste does not: the grind first',
      'a check at 10 % risk',
    ]);
  });
});

describe('what does not go together', () => {
  it('is said with grams, as they stand on the basket', () => {
    const on = { kind: 'recipe' as const, id: 'r1' };
    const over = { kind: 'doseOverBasket' as const, doseG: 20, minG: 16.5, maxG: 19, on, name: 'House double' };
    expect(findingWord(over)).toBe(
      'House double asks for 20 g in a basket for 16.5 g to 19 g: it would touch the screen.',
    );
    expect(findingWord({ ...over, kind: 'doseUnderBasket', doseG: 14 })).toMatch(/14 g .* the bed would lie loose/);
    expect(findingWord({ kind: 'noBasket', on, name: 'House double' })).toMatch(/^House double names no basket/);
    expect(findingWord({ kind: 'noCoffee', on: { kind: 'grinder', id: 'g' }, name: 'Decaf' })).toMatch(/put a bag in/);
  });
});

describe('a recipe in words', () => {
  it('says where its time starts, and what that is on the bench', () => {
    expect(timeWord(recipe)).toBe('25–30 s from the pump');
    expect(timeWord({ ...recipe, timeFrom: 'soakEnd', soakS: 7, pauseS: 5 })).toBe(
      '25–30 s from the end of the soak, 37–42 s on the bench',
    );
  });

  it('is written in the units that the person reads', () => {
    expect(inOutWord(recipe)).toBe('18.0 g in, 36.0 g out, 1 : 2.00');
    readIn({ mass: 'oz', volume: 'fl oz', temperature: '°F', pressure: 'psi' });
    expect(inOutWord(recipe)).toBe('0.635 oz in, 1.270 oz out, 1 : 2.00');
    // What hangs on the wall is the house's, whoever looks at it.
    expect(inOutWord(recipe, unitSchools.metric)).toBe('18.0 g in, 36.0 g out, 1 : 2.00');
    expect([grams(18.3), degrees(93), bars(9), kilograms(1_000)]).toEqual([
      '0.646 oz',
      '199.4 °F',
      '131 psi',
      '2.2 lb',
    ]);
    expect(reasonSaid({ code: 'weighDose', doseG: 18.3, setting: 30 })).toBe(
      'Weigh 0.646 oz and pull again; the collar stays at 30.',
    );
    const on = { kind: 'recipe' as const, id: 'r' };
    expect(findingWord({ kind: 'boils', tempC: 97, boilsAtC: 95.1, on, name: 'House' })).toBe(
      'House asks for 206.6 °F; water boils at 203.2 °F here.',
    );
    expect(readQuantity('40', 'doseG')).toEqual({
      ok: false,
      error: 'A dose lies between 0.11 and 1.06 oz. Check the number and its unit.',
    });
  });
});
