import type { CoffeeSheet } from '@tempera/contract/coffee';
import { usualOpenLimits, usualWindow } from '@tempera/core/coffee';
import type { Field } from '../forms/index.ts';

type Options = readonly { value: string; label: string }[];

export const coffeeFields = (recipes: Options, currency: string): readonly Field[] => [
  { type: 'text', name: 'name', label: 'Name' },
  {
    type: 'choice',
    name: 'kind',
    label: 'Kind',
    options: [
      { value: 'blend', label: 'Blend' },
      { value: 'single', label: 'Single origin' },
    ],
  },
  { type: 'yes', name: 'decaf', label: 'Decaf' },
  {
    type: 'choice',
    name: 'roast',
    label: 'Roast',
    options: [
      { value: 'light', label: 'Light' },
      { value: 'medium', label: 'Medium' },
      { value: 'dark', label: 'Dark' },
    ],
  },
  { type: 'choice', name: 'recipeId', label: 'Recipe', options: recipes, none: 'none yet' },
  {
    type: 'list',
    name: 'moreRecipes',
    label: 'More recipes on the same collar: a single beside the double',
    one: 'recipe',
    wide: true,
    blank: { recipeId: null },
    of: [{ type: 'choice', name: 'recipeId', label: 'Recipe', options: recipes }],
  },
  { type: 'number', name: 'pricePerKg', label: 'Price', unit: `${currency} a kg`, step: 0.5, optional: true },
  { type: 'text', name: 'roasterWords', label: "Roaster's words", rows: 2, wide: true },
  { type: 'number', name: 'restDays', part: 'Days since the roast', label: 'Rests until', unit: 'days', step: 1 },
  { type: 'number', name: 'primeDays', label: 'Prime until', unit: 'days', step: 1 },
  { type: 'number', name: 'fadeDays', label: 'Past from', unit: 'days', step: 1 },
  {
    type: 'number',
    name: 'openBestH',
    part: 'Hours in an open bag or a hopper',
    label: 'Best for',
    unit: 'h',
    step: 1,
  },
  { type: 'number', name: 'openStaleH', label: 'Too long from', unit: 'h', step: 1 },
];

export const freshCoffee: CoffeeSheet = {
  name: '',
  kind: 'blend',
  decaf: false,
  roast: 'medium',
  roasterWords: '',
  ...usualWindow,
  ...usualOpenLimits,
  pricePerKg: null,
  recipeId: null,
  moreRecipes: [],
};

export const bagFields = (coffees: Options): readonly Field[] => [
  { type: 'choice', name: 'coffeeId', label: 'Coffee', options: coffees },
  { type: 'day', name: 'roastedOn', label: 'Roasted on' },
  { type: 'number', name: 'weightG', label: 'Weight', unit: 'g', step: 250, digits: 0 },
  { type: 'text', name: 'label', label: 'Lot or mark', says: 'What tells it from the others, if anything does.' },
  { type: 'day', name: 'openedOn', label: 'Opened by hand on', optional: true },
  { type: 'day', name: 'finishedOn', label: 'Used up or given away on', optional: true },
  {
    type: 'list',
    name: 'freezes',
    label: 'In the freezer',
    one: 'stay',
    wide: true,
    blank: { on: '', until: '' },
    of: [
      { type: 'day', name: 'on', label: 'Frozen on' },
      { type: 'day', name: 'until', label: 'Thawed on', optional: true },
    ],
  },
];

const USUAL_BAG_G = 1_000;

export const freshBag = (today: string, coffeeId: string) => ({
  coffeeId,
  roastedOn: today,
  weightG: USUAL_BAG_G,
  freezes: [],
  openedOn: null,
  finishedOn: null,
  label: '',
});
