import { describe, expect, it } from 'vitest';
import { crossChecks, type HouseInUse } from './crossChecks.ts';

const sound: HouseInUse = {
  altitudeM: 0,
  baskets: [{ id: 'b18', name: 'Double 18', minG: 16.5, maxG: 19 }],
  recipes: [{ recipeId: 'r1', name: 'House double', doseG: 18, basketId: 'b18', tempC: 93 }],
  coffees: [{ id: 'c1', name: 'Canopy', recipeId: 'r1' }],
  groups: [{ id: 'g1', name: 'Group 1', basketId: 'b18' }],
  grinders: [{ id: 'a', name: 'House', coffeeId: 'c1' }],
};
const recipe = (change: object): Partial<HouseInUse> => ({ recipes: [{ ...sound.recipes[0]!, ...change }] });
const kinds = (change: Partial<HouseInUse>): string[] => crossChecks({ ...sound, ...change }).map(({ kind }) => kind);

describe('what does not go together', () => {
  it('is nothing in a sound house', () => {
    expect(crossChecks(sound)).toEqual([]);
  });

  it.each<[string, Partial<HouseInUse>, string[]]>([
    ['a dose that touches the screen', recipe({ doseG: 20 }), ['doseOverBasket']],
    ['a loose bed', recipe({ doseG: 14 }), ['doseUnderBasket']],
    ['a recipe without a basket', recipe({ basketId: null }), ['noBasket']],
    ['a basket that was retired', { baskets: [] }, ['basketGone']],
    ['water that would boil up here', { altitudeM: 2_400 }, ['boils']],
    ['a coffee without a recipe', { coffees: [{ id: 'c1', name: 'Canopy', recipeId: null }] }, ['noRecipe']],
    ['a recipe that was retired', { recipes: [] }, ['recipeGone']],
    ['an empty grinder', { grinders: [{ id: 'a', name: 'House', coffeeId: null }] }, ['noCoffee']],
    [
      'two grinders of one name',
      { grinders: [...sound.grinders, { id: 'z', name: ' house', coffeeId: 'c1' }] },
      ['sameName'],
    ],
  ])('names %s', (_name, change, expected) => {
    expect(kinds(change)).toEqual(expected);
  });

  it('comes with its numbers, and what to open', () => {
    expect(crossChecks({ ...sound, ...recipe({ doseG: 20 }) })[0]).toEqual({
      kind: 'doseOverBasket',
      on: { kind: 'recipe', id: 'r1' },
      name: 'House double',
      doseG: 20,
      minG: 16.5,
      maxG: 19,
    });
  });
});
