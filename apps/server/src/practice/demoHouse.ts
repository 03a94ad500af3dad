import type { CoffeeSheet } from '@tempera/contract/coffee';
import type { DrinkSheet } from '@tempera/contract/house';
import { usualHouse } from '@tempera/contract/policy';
import type { RecipeVersionRow } from '../house/index.ts';
import { demoId, kept } from './demoBar.ts';

/** The made-up café's house book: policies, recipes, coffees, drinks. */

/** The house's policies, as its head barista once set them. */
export const policy = {
  id: demoId('policy 1'),
  siteId: kept.siteId,
  version: 1,
  choices: { ...usualHouse, sureness: 0.9 },
  reason: null,
  personId: null,
};

/** A recipe's first version, in force since long before the history begins. */
const recipe = (
  name: string,
  numbers: Pick<RecipeVersionRow, 'doseG' | 'doseToleranceG' | 'yieldG' | 'yieldToleranceG' | 'timeMinS' | 'timeMaxS'> &
    Partial<RecipeVersionRow>,
): RecipeVersionRow => ({
  id: demoId(`recipe ${name} 1`),
  siteId: kept.siteId,
  recipeId: demoId(`recipe ${name}`),
  name,
  version: 1,
  timeFrom: 'pump',
  firstDropMinS: 4,
  firstDropMaxS: 8,
  soakS: 0,
  pauseS: 0,
  pressureBar: 9,
  pressureShape: '',
  tampG: null,
  doseNoMore: false,
  tempC: 93,
  basketId: demoId('basket 18'),
  taste: { sourBitter: { low: 4, high: 6 }, weakStrong: { low: 5, high: 7 } },
  prepSteps: [
    'Dry and wipe the basket',
    'Grind, weigh, within its tolerance',
    'Distribute, tap once, tamp level until it stops giving',
    'Wipe the rim; rinse the group for a second',
    'Lock in and start at once',
  ],
  roaster: null,
  retired: false,
  reason: null,
  validFrom: '2000-01-01',
  approvedBy: null,
  writtenAt: new Date('2000-01-01T00:00:00Z'),
  ...numbers,
});

const window = (doseG: number, yieldG: number, timeMinS: number, timeMaxS: number) => ({
  doseG,
  yieldG,
  timeMinS,
  timeMaxS,
  doseToleranceG: 0.3,
  yieldToleranceG: 1.5,
});

/** How long ago the house double got its second version. */
export const HOUSE_CHANGED_DAYS_AGO = 19;

const houseDouble = recipe('House double', {
  ...window(18, 38, 25, 30),
  roaster: { doseG: 18, yieldG: 40, timeS: 28, tempC: 93, words: 'Cocoa, baked plum, a soft finish.' },
});

/** Every version; the history begins with the first of each. */
export const recipes: RecipeVersionRow[] = [
  houseDouble,
  {
    ...houseDouble,
    id: demoId('recipe House double 2'),
    version: 2,
    yieldG: 36,
    reason: 'Thin in milk since the new crop: two grams less in the cup',
    approvedBy: demoId('person Ines'),
  },
  recipe('House single', {
    ...window(8.8, 21, 20, 25),
    doseToleranceG: 0.2,
    yieldToleranceG: 1.2,
    firstDropMinS: 3,
    firstDropMaxS: 7,
    basketId: demoId('basket 9'),
  }),
  recipe('Guest double', {
    ...window(17.5, 42, 26, 31),
    tempC: 94,
    taste: { sourBitter: { low: 3, high: 5 }, weakStrong: { low: 4, high: 6 } },
    roaster: {
      doseG: 18,
      yieldG: 45,
      timeS: 27,
      tempC: 94,
      words: 'Jasmine, apricot, cane sugar. Rest it for a week.',
    },
  }),
  recipe('Decaf double', { ...window(18, 34, 24, 30), doseToleranceG: 0.4, yieldToleranceG: 2 }),
  recipe('Brewed by the group', {
    ...window(21, 235, 54, 66),
    doseToleranceG: 0.5,
    yieldToleranceG: 8,
    firstDropMinS: 6,
    firstDropMaxS: 15,
    pressureBar: 3,
    basketId: demoId('basket 20'),
    taste: { sourBitter: { low: 4, high: 6 }, weakStrong: { low: 2, high: 4 } },
    prepSteps: [
      'Grind into the deep basket, do not tamp',
      'Level it by hand',
      'Start at low pressure, stop at the cup line',
    ],
  }),
];

const coffee = (name: string, recipeName: string, more: Partial<CoffeeSheet> & { pricePerKg: number }) => ({
  ...kept,
  id: demoId(`coffee ${name}`),
  name,
  kind: 'single' as CoffeeSheet['kind'],
  decaf: false,
  roasterWords: '',
  restDays: 4,
  primeDays: 14,
  fadeDays: 28,
  recipeId: demoId(`recipe ${recipeName}`),
  moreRecipes: [] as CoffeeSheet['moreRecipes'],
  ...more,
});

export const coffees = [
  coffee('Canopy blend', 'House double', {
    kind: 'blend',
    roasterWords: 'Cocoa, baked plum, a soft finish.',
    primeDays: 16,
    fadeDays: 32,
    pricePerKg: 22,
    moreRecipes: [{ recipeId: demoId('recipe House single') }],
  }),
  coffee('Lantern Moss', 'Guest double', {
    roasterWords: 'Jasmine, apricot, cane sugar. Rest it for a week.',
    restDays: 6,
    primeDays: 13,
    fadeDays: 22,
    pricePerKg: 34,
  }),
  coffee('Dusk decaf', 'Decaf double', { decaf: true, roasterWords: 'Malt and dried fig.', pricePerKg: 27 }),
  coffee('Rill, brewed', 'Brewed by the group', { roasterWords: 'Blackcurrant, tomato leaf.', pricePerKg: 29 }),
];

const drink = (name: string, recipeName: string, more: Partial<DrinkSheet> & { orders: number; position: number }) => ({
  ...kept,
  id: demoId(`drink ${name}`),
  name,
  recipeId: demoId(`recipe ${recipeName}`),
  share: 1,
  baskets: 1,
  milkMl: 0,
  foamMm: 0,
  milkTempC: 60,
  waterMl: 0,
  waterFirst: false,
  ...more,
});

export const drinks = [
  drink('Espresso', 'House double', { baskets: 0.5, orders: 12, position: 1 }),
  drink('Double', 'House double', { orders: 10, position: 2 }),
  drink('Short', 'House double', { share: 0.65, orders: 4, position: 3 }),
  drink('Macchiato', 'House double', { baskets: 0.5, milkMl: 15, foamMm: 8, orders: 6, position: 4 }),
  drink('Flat white', 'House double', { share: 0.9, milkMl: 120, foamMm: 4, orders: 24, position: 5 }),
  drink('Cappuccino', 'House double', { milkMl: 130, foamMm: 15, orders: 18, position: 6 }),
  drink('Latte', 'House double', { milkMl: 220, foamMm: 8, orders: 12, position: 7 }),
  drink('Long black', 'Guest double', { waterMl: 120, waterFirst: true, orders: 8, position: 8 }),
  drink('Decaf flat white', 'Decaf double', { milkMl: 120, foamMm: 4, orders: 4, position: 9 }),
  drink('Brewed cup', 'Brewed by the group', { orders: 2, position: 10 }),
];
