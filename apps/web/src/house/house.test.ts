import type { RecipeVersion } from '@tempera/contract/house';
import { usualHouse } from '@tempera/contract/policy';
import { usualUnits } from '@tempera/core/house';
import { afterEach, describe, expect, it } from 'vitest';
import { bars, degrees, grams, kilograms, said, speakIn } from '../ui/format.ts';
import { asksByPolicy } from './example.ts';
import { houseAsks, stopWord } from './houseAsks.ts';
import { policyChanges } from './policyWords.ts';
import { inOutWord, timeWord } from './recipeWords.ts';

afterEach(() => speakIn(usualUnits));

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

describe('a recipe in words', () => {
  it('says where its time starts, and what that is on the bench', () => {
    expect(timeWord(recipe)).toBe('25–30 s from the pump');
    expect(timeWord({ ...recipe, timeFrom: 'soakEnd', soakS: 7, pauseS: 5 })).toBe(
      '25–30 s from the end of the soak, 37–42 s on the bench',
    );
  });

  it('is written in the units that the person reads', () => {
    expect(inOutWord(recipe)).toBe('18.0 g in, 36.0 g out, 1 : 2.00');
    speakIn({ mass: 'oz', volume: 'fl oz', temperature: '°F', pressure: 'psi' });
    expect(inOutWord(recipe)).toBe('0.635 oz in, 1.270 oz out, 1 : 2.00');
    expect([grams(18.3), degrees(93), bars(9), kilograms(1_000)]).toEqual([
      '0.646 oz',
      '199.4 °F',
      '131 psi',
      '2.2 lb',
    ]);
    expect(said('Weigh 18.3 g and pull again.')).toBe('Weigh 0.646 oz and pull again.');
  });
});
