import type { Recipe } from '@tempera/contract/house';
import type { Field } from '../forms/index.ts';

type Options = readonly { value: string; label: string }[];

/** What a recipe says, in the order of its card. */
export const recipeFields = (baskets: Options): readonly Field[] => [
  { type: 'text', name: 'name', label: 'Name', wide: true },
  {
    type: 'number',
    name: 'doseG',
    part: 'In and out',
    label: 'Dose',
    unit: 'g',
    step: 0.1,
    digits: 1,
    quantity: 'doseG',
  },
  {
    type: 'number',
    name: 'doseToleranceG',
    label: 'Dose, give or take',
    unit: 'g',
    step: 0.1,
    digits: 2,
    quantity: 'doseToleranceG',
  },
  { type: 'choice', name: 'basketId', label: 'Basket', options: baskets, none: 'none named' },
  { type: 'number', name: 'yieldG', label: 'Yield', unit: 'g', step: 0.5, digits: 1 },
  {
    type: 'number',
    name: 'yieldToleranceG',
    label: 'Yield, give or take',
    unit: 'g',
    step: 0.5,
    digits: 2,
    quantity: 'yieldToleranceG',
  },
  {
    type: 'choice',
    name: 'timeFrom',
    part: 'Time',
    label: 'Time starts with',
    options: [
      { value: 'pump', label: 'the pump' },
      { value: 'firstDrop', label: 'the first drop' },
      { value: 'soakEnd', label: 'the end of the soak' },
    ],
  },
  { type: 'number', name: 'timeMinS', label: 'At least', unit: 's', step: 1 },
  { type: 'number', name: 'timeMaxS', label: 'At most', unit: 's', step: 1 },
  { type: 'number', name: 'firstDropMinS', label: 'First drop, from', unit: 's', step: 1 },
  { type: 'number', name: 'firstDropMaxS', label: 'First drop, until', unit: 's', step: 1 },
  { type: 'number', name: 'soakS', label: 'Soak', unit: 's', step: 1 },
  { type: 'number', name: 'pauseS', label: 'Pause', unit: 's', step: 1 },
  {
    type: 'number',
    name: 'pressureBar',
    part: 'Water',
    label: 'Pressure',
    unit: 'bar',
    step: 0.5,
    digits: 1,
    optional: true,
    quantity: 'pressureBar',
  },
  {
    type: 'number',
    name: 'tempC',
    label: 'Temperature',
    unit: '°C',
    step: 0.5,
    digits: 1,
    optional: true,
    quantity: 'tempC',
  },
  {
    type: 'number',
    name: 'taste.sourBitter.low',
    part: 'Taste it aims at, 0 to 10',
    label: 'Sour 0 to bitter 10, from',
    unit: '',
    step: 1,
  },
  { type: 'number', name: 'taste.sourBitter.high', label: 'Sour to bitter, until', unit: '', step: 1 },
  { type: 'number', name: 'taste.weakStrong.low', label: 'Weak 0 to strong 10, from', unit: '', step: 1 },
  { type: 'number', name: 'taste.weakStrong.high', label: 'Weak to strong, until', unit: '', step: 1 },
  {
    type: 'lines',
    name: 'prepSteps',
    part: 'Steps, in order',
    label: 'What is done, each time the same',
    one: 'step',
    wide: true,
  },
];

/** Where the roaster says to begin. */
export const roasterFields: readonly Field[] = [
  {
    type: 'number',
    name: 'roaster.doseG',
    part: "The roaster's start",
    label: "Roaster's dose",
    unit: 'g',
    step: 0.1,
    digits: 1,
    quantity: 'doseG',
  },
  { type: 'number', name: 'roaster.yieldG', label: "Roaster's yield", unit: 'g', step: 0.5, digits: 1 },
  { type: 'number', name: 'roaster.timeS', label: "Roaster's time", unit: 's', step: 1 },
  {
    type: 'number',
    name: 'roaster.tempC',
    label: "Roaster's temperature",
    unit: '°C',
    step: 0.5,
    digits: 1,
    optional: true,
  },
  { type: 'text', name: 'roaster.words', label: "Roaster's words", rows: 2, wide: true },
];

/** What a new recipe starts from: the trade's usual double. */
export const freshRecipe: Recipe = {
  name: '',
  doseG: 18,
  doseToleranceG: 0.3,
  yieldG: 36,
  yieldToleranceG: 1.5,
  timeFrom: 'pump',
  timeMinS: 25,
  timeMaxS: 30,
  firstDropMinS: 4,
  firstDropMaxS: 8,
  soakS: 0,
  pauseS: 0,
  pressureBar: 9,
  tempC: 93,
  basketId: null,
  taste: { sourBitter: { low: 4, high: 6 }, weakStrong: { low: 4, high: 6 } },
  prepSteps: [],
  roaster: null,
  retired: false,
};

export const freshRoaster = { doseG: 18, yieldG: 36, timeS: 28, tempC: null, words: '' };
