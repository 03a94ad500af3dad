import type { BasketSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import { machineUpkeeps } from '@tempera/core/facts';
import type { Field } from '../forms/index.ts';
import { upkeepWord } from './upkeepWords.ts';

export const machineFields: readonly Field[] = [
  { type: 'text', name: 'name', label: 'Name' },
  {
    type: 'choice',
    name: 'boiler',
    label: 'Boilers',
    options: [
      { value: 'one', label: 'One for brew and steam' },
      { value: 'exchanger', label: 'Steam boiler with an exchanger' },
      { value: 'brewAndSteam', label: 'One for brew, one for steam' },
      { value: 'perGroup', label: 'One a group, one for steam' },
    ],
  },
  { type: 'number', name: 'warmUpMin', label: 'Warm-up', unit: 'min', step: 1 },
  { type: 'yes', name: 'setsTemp', label: 'Brew temperature can be set' },
  { type: 'yes', name: 'setsPressure', label: 'Pressure can be set' },
  { type: 'yes', name: 'lever', label: 'A lever presses, no pump' },
  {
    type: 'list',
    name: 'upkeep',
    label: 'Kept up, by the calendar or by litres',
    one: 'rule',
    wide: true,
    blank: { what: 'filter', months: '', litres: '', lastOn: '' },
    of: [
      {
        type: 'choice',
        name: 'what',
        label: 'What',
        options: machineUpkeeps.map((value) => ({ value, label: upkeepWord[value].name })),
      },
      { type: 'number', name: 'months', label: 'Every', unit: 'months', step: 1, optional: true },
      { type: 'number', name: 'litres', label: 'Or after', unit: 'l', step: 500, digits: 0, optional: true },
      { type: 'day', name: 'lastOn', label: 'Last done', optional: true },
    ],
  },
  {
    type: 'list',
    name: 'gauges',
    label: 'Gauges, with what they must show',
    one: 'gauge',
    wide: true,
    blank: { name: '', unit: 'bar', min: '', max: '' },
    of: [
      { type: 'text', name: 'name', label: 'Gauge' },
      {
        type: 'choice',
        name: 'unit',
        label: 'Shows',
        options: [
          { value: 'bar', label: 'bar' },
          { value: '°C', label: '°C' },
        ],
      },
      { type: 'number', name: 'min', label: 'At least', unit: '', step: 0.1 },
      { type: 'number', name: 'max', label: 'At most', unit: '', step: 0.1 },
    ],
  },
];

export const groupFields = (
  machines: readonly { value: string; label: string }[],
  baskets: readonly Kept<BasketSheet>[],
): readonly Field[] => [
  { type: 'text', name: 'name', label: 'Name' },
  { type: 'choice', name: 'machineId', label: 'Machine', options: machines },
  { type: 'number', name: 'position', label: 'Place, from the left', unit: '', step: 1 },
  {
    type: 'choice',
    name: 'basketId',
    label: 'Basket in use',
    none: 'not said',
    options: baskets.filter(({ retired }) => !retired).map(({ id, sheet }) => ({ value: id, label: sheet.name })),
  },
  { type: 'day', name: 'cleanedOn', label: 'Screen last cleaned', optional: true },
  {
    type: 'list',
    name: 'buttons',
    label: 'Volume buttons, with the count that each is programmed to',
    one: 'button',
    wide: true,
    blank: { name: '', counts: '' },
    of: [
      { type: 'text', name: 'name', label: 'Button' },
      { type: 'number', name: 'counts', label: 'Counts', unit: '', step: 1 },
    ],
  },
];

export const grinderFields: readonly Field[] = [
  { type: 'text', name: 'name', label: 'Name' },
  { type: 'yes', name: 'stepped', label: 'Clicks from mark to mark' },
  { type: 'number', name: 'stepMarks', label: 'Smallest step', unit: 'marks', step: 0.1 },
  {
    type: 'choice',
    name: 'finer',
    label: 'Finer is',
    options: [
      { value: 'down', label: 'a smaller number' },
      { value: 'up', label: 'a larger number' },
    ],
  },
  { type: 'yes', name: 'readsDial', label: 'The collar shows a number' },
  { type: 'yes', name: 'unlocksFirst', label: 'The collar is unlocked before it turns' },
  {
    type: 'choice',
    name: 'doser',
    label: 'Grounds come',
    options: [
      { value: 'direct', label: 'straight into the basket' },
      { value: 'chamber', label: 'from a chamber, with a lever' },
      { value: 'automat', label: 'to a line, tamped by the automat' },
    ],
  },
  { type: 'number', name: 'dialMin', label: 'Dial begins at', unit: '', step: 1 },
  { type: 'number', name: 'dialMax', label: 'Dial ends at', unit: '', step: 1 },
  { type: 'number', name: 'seedSetting', label: 'Stood at, when it came', unit: '', step: 1 },
  {
    type: 'number',
    name: 'secondsPerMark',
    part: 'What the house believes',
    label: 'One mark is worth',
    unit: 's',
    step: 0.5,
    optional: true,
    says: 'Leave it empty if nobody knows: it is learned.',
  },
  {
    type: 'number',
    name: 'retentionG',
    label: 'Held between burrs and spout',
    unit: 'g',
    step: 0.5,
    digits: 1,
    optional: true,
    says: 'Leave it empty if nobody knows.',
  },
  { type: 'number', name: 'rateGps', label: 'Grinds', unit: 'g/s', step: 0.1, optional: true },
  {
    type: 'number',
    name: 'doseSingleS',
    label: 'Single, by time',
    unit: 's',
    step: 0.1,
    optional: true,
    quantity: 'grindTimeS',
  },
  {
    type: 'number',
    name: 'doseDoubleS',
    label: 'Double, by time',
    unit: 's',
    step: 0.1,
    optional: true,
    quantity: 'grindTimeS',
  },
  {
    type: 'number',
    name: 'burrKg',
    label: 'Ground by these burrs',
    unit: 'kg',
    step: 10,
    optional: true,
    says: 'As counted on the day beside; bags since then are added.',
  },
  { type: 'day', name: 'burrsOn', label: 'Counted on', optional: true },
  {
    type: 'number',
    name: 'burrLifeKg',
    label: 'Burrs are good for',
    unit: 'kg',
    step: 50,
    optional: true,
    says: 'Leave it empty if nobody says: upkeep then leaves them out.',
  },
];

export const basketFields: readonly Field[] = [
  { type: 'text', name: 'name', label: 'Name' },
  { type: 'number', name: 'minG', label: 'Holds at least', unit: 'g', step: 0.5, digits: 1 },
  { type: 'number', name: 'maxG', label: 'Holds at most', unit: 'g', step: 0.5, digits: 1 },
  {
    type: 'choice',
    name: 'wall',
    label: 'Walls',
    options: [
      { value: 'single', label: 'Single' },
      { value: 'dual', label: 'Dual: time hardly answers to the grind' },
    ],
  },
  {
    type: 'number',
    name: 'levelG',
    part: 'Filled without a scale',
    label: 'Struck level it holds',
    unit: 'g',
    step: 0.1,
    digits: 1,
    optional: true,
    says: 'Weighed once, then known.',
  },
  {
    type: 'number',
    name: 'fillStepG',
    label: 'Settled and refilled, or hollow',
    unit: 'g',
    step: 0.1,
    digits: 1,
    optional: true,
    says: 'More or less than level by so much.',
  },
];

export const fixtureFields: readonly Field[] = [
  { type: 'text', name: 'name', label: 'Name' },
  {
    type: 'choice',
    name: 'kind',
    label: 'What it is',
    options: [
      { value: 'scale', label: 'Scale' },
      { value: 'knockBox', label: 'Knock box' },
      { value: 'milk', label: 'Milk station' },
    ],
  },
];

export const counterFields: readonly Field[] = [
  { type: 'text', name: 'name', label: 'Name' },
  {
    type: 'choice',
    name: 'faces',
    label: 'The barista stands',
    options: [
      { value: 'down', label: 'below it on the plan' },
      { value: 'up', label: 'above it on the plan' },
    ],
  },
];

/** What most houses keep up, until this one says otherwise. */
const usualUpkeep = [
  { what: 'filter' as const, months: 6, litres: null, lastOn: null },
  { what: 'gaskets' as const, months: 12, litres: null, lastOn: null },
  { what: 'service' as const, months: 12, litres: null, lastOn: null },
];

/** What a new piece starts from. */
export const freshPieces = {
  machine: {
    name: '',
    boiler: 'exchanger' as const,
    warmUpMin: 25,
    setsTemp: false,
    setsPressure: false,
    lever: false,
    upkeep: usualUpkeep,
    // The usual of the trade: steam 1.0-1.5 bar when hot, 8-9.5 bar in a shot.
    gauges: [
      { name: 'Steam', unit: 'bar' as const, min: 1, max: 1.5 },
      { name: 'Brew, in a shot', unit: 'bar' as const, min: 8, max: 9.5 },
    ],
  },
  group: { name: '', position: 1, basketId: null, cleanedOn: null, buttons: [] },
  grinder: {
    name: '',
    stepped: true,
    stepMarks: 1,
    finer: 'down' as const,
    dialMin: 0,
    dialMax: 40,
    seedSetting: 20,
    readsDial: true,
    unlocksFirst: false,
    doser: 'direct' as const,
  },
  basket: { name: '', minG: 16, maxG: 19, wall: 'single' as const, levelG: null, fillStepG: null },
  fixture: { name: 'Scale', kind: 'scale' as const },
  counter: { name: 'Counter', faces: 'down' as const },
};
