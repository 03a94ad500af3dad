import type { Bar } from '@tempera/contract/bar';
import type { DrinkSheet, RecipeVersion } from '@tempera/contract/house';
import type { Kept } from '@tempera/contract/sheet';
import { paceOf } from '@tempera/core/house';
import { describe, expect, it } from 'vitest';
import { knownDrinks, pacedDrink, stationsOf } from './drinks.ts';

const recipe = {
  recipeId: 'r',
  name: 'House double',
  doseG: 18,
  yieldG: 36,
  timeFrom: 'soakEnd',
  timeMinS: 20,
  timeMaxS: 24,
  firstDropMinS: 4,
  firstDropMaxS: 8,
  soakS: 6,
  pauseS: 2,
} as RecipeVersion;
const drink = (
  name: string,
  position: number,
  change: Partial<DrinkSheet> = {},
  retired = false,
): Kept<DrinkSheet> => ({
  id: name,
  revision: 1,
  retired,
  changedBy: null,
  changedAt: null,
  sheet: {
    name,
    recipeId: 'r',
    share: 1,
    baskets: 1,
    milkMl: 0,
    foamMm: 0,
    milkTempC: 60,
    waterMl: 0,
    waterFirst: false,
    orders: 10,
    position,
    ...change,
  },
});
const bar = {
  machines: [{ groups: [{}, {}, {}] }, { groups: [{}, {}] }],
  grinders: [{ recipe: { recipeId: 'r' }, rateGps: 2.5 }],
} as unknown as Bar;

describe('the drinks of the card', () => {
  it('stand in their order, without what is out of use or has lost its recipe', () => {
    const sheets = [
      drink('Latte', 3),
      drink('Short', 1, { share: 0.5 }),
      drink('Old', 0, {}, true),
      drink('Orphan', 2, { recipeId: 'gone' }),
      drink('Double', 1),
    ];
    const known = knownDrinks(sheets, [recipe]);
    expect(known.map(({ id }) => id)).toEqual(['Double', 'Short', 'Latte']);
    expect(known.map(({ card }) => card.espressoG)).toEqual([36, 18, 36]);
    expect(knownDrinks([], [recipe])).toEqual([]);
  });

  it('are paced by the clock of the bench, the grinder that holds their coffee, and what the bar has', () => {
    const [double] = knownDrinks([drink('Double', 1)], [recipe]);
    const paced = pacedDrink(double!, bar);
    // From the end of a soak of 8 s, the group is busy for 28 to 32 s.
    expect(paced.recipe.timeS).toEqual({ min: 28, max: 32 });
    expect(paced.rateGps).toBe(2.5);
    expect(pacedDrink(double!, { ...bar, grinders: [] }).rateGps).toBeNull();
    expect(stationsOf(bar, 3)).toEqual({ groups: 5, grinders: 1, wands: 2, people: 3 });
    expect(stationsOf({ ...bar, machines: [] }, 1).wands).toBe(1);
  });

  it('are held up by the hands of one, and by the grinder once there are many', () => {
    const [double] = knownDrinks([drink('Double', 1)], [recipe]);
    const paced = [pacedDrink(double!, bar)];
    expect(paceOf(paced, stationsOf(bar, 1))).toMatchObject({ bottleneck: 'people' });
    // 18 g at 2.5 g/s and 3 s of change: 10.2 s, 353 an hour; four pairs of hands at 38 s: 379.
    expect(paceOf(paced, stationsOf(bar, 4))).toMatchObject({ bottleneck: 'grinders' });
  });
});
