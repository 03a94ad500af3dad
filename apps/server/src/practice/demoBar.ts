import { usualPolicy } from '@tempera/core/calibration';
import { v5 as uuidFromName } from 'uuid';
import type { GrinderRow } from '../bar/index.ts';
import type { RecipeVersionRow } from '../house/index.ts';
import type { PersonRow } from '../team/index.ts';

/** The made-up café that ships with Tempera: a bar in the glasshouse of a botanical garden. */

const NAMESPACE = '7c0e6f5a-53d1-4c1f-9d52-1f6a3f0b8e21';
export const demoId = (name: string): string => uuidFromName(name, NAMESPACE);

const demoSiteId = demoId('site');

export const people: { name: string; role: PersonRow['role']; pin: string }[] = [
  { name: 'Ines', role: 'head', pin: '2468' },
  { name: 'Tobin', role: 'barista', pin: '1357' },
  { name: 'Noor', role: 'barista', pin: '8642' },
  { name: 'Pell', role: 'trainee', pin: '7531' },
];

/** Names and PINs, as the demo prints them. */
export const demoSignIns = people.map(({ name, pin }) => ({ name, pin }));

/** PINs by person id; shown by the demo only. */
export const demoPins: Record<string, string> = Object.fromEntries(
  people.map(({ name, pin }) => [demoId(`person ${name}`), pin]),
);

export const site = {
  id: demoSiteId,
  name: 'Quillwort Glasshouse',
  timeZone: 'Europe/Lisbon',
  roomWidthCm: 420,
  roomDepthCm: 200,
};

/** The house's policies, as its head barista once set them. */
export const policy = {
  ...usualPolicy,
  id: demoId('policy 1'),
  siteId: demoSiteId,
  version: 1,
  sureness: 0.9,
  reason: null,
  personId: null,
};

const recipe = (
  name: string,
  numbers: Omit<RecipeVersionRow, 'id' | 'siteId' | 'recipeId' | 'name' | 'version'>,
): RecipeVersionRow => ({
  id: demoId(`recipe ${name} 1`),
  siteId: demoSiteId,
  recipeId: demoId(`recipe ${name}`),
  name,
  version: 1,
  ...numbers,
});

export const recipes = [
  recipe('House double', {
    doseG: 18,
    doseToleranceG: 0.3,
    yieldG: 36,
    yieldToleranceG: 1.5,
    timeMinS: 25,
    timeMaxS: 30,
    firstDropMinS: 4,
    firstDropMaxS: 8,
  }),
  recipe('Guest double', {
    doseG: 17.5,
    doseToleranceG: 0.3,
    yieldG: 42,
    yieldToleranceG: 1.5,
    timeMinS: 26,
    timeMaxS: 31,
    firstDropMinS: 4,
    firstDropMaxS: 8,
  }),
  recipe('Decaf double', {
    doseG: 18,
    doseToleranceG: 0.4,
    yieldG: 34,
    yieldToleranceG: 2,
    timeMinS: 24,
    timeMaxS: 30,
    firstDropMinS: 4,
    firstDropMaxS: 8,
  }),
  recipe('Brewed by the group', {
    doseG: 20,
    doseToleranceG: 0.5,
    yieldG: 250,
    yieldToleranceG: 8,
    timeMinS: 60,
    timeMaxS: 70,
    firstDropMinS: 6,
    firstDropMaxS: 15,
  }),
];

const grinder = (
  name: string,
  coffee: string,
  recipeName: string,
  more: Omit<GrinderRow, 'id' | 'siteId' | 'name' | 'coffee' | 'recipeVersionId' | 'widthCm' | 'depthCm'>,
): GrinderRow => ({
  id: demoId(`grinder ${name}`),
  siteId: demoSiteId,
  name,
  coffee,
  recipeVersionId: demoId(`recipe ${recipeName} 1`),
  widthCm: 24,
  depthCm: 40,
  ...more,
});

export const grinders: GrinderRow[] = [
  grinder('House', 'Canopy blend', 'House double', {
    xCm: 26,
    yCm: 14,
    stepMarks: 1,
    finer: 'down',
    dialMin: 1,
    dialMax: 60,
    seedSetting: 30,
    secondsPerMark: 2.5,
    retentionG: null,
    rateGps: 2.1,
  }),
  grinder('Guest', 'Lantern Moss', 'Guest double', {
    xCm: 98,
    yCm: 14,
    stepMarks: 0.1,
    finer: 'down',
    dialMin: 0,
    dialMax: 12,
    seedSetting: 5,
    secondsPerMark: 14,
    retentionG: 3,
    rateGps: 2.4,
  }),
  grinder('Decaf', 'Dusk decaf', 'Decaf double', {
    xCm: 190,
    yCm: 146,
    stepMarks: 1,
    finer: 'down',
    dialMin: 1,
    dialMax: 40,
    seedSetting: 18,
    secondsPerMark: 3,
    retentionG: null,
    rateGps: 1.8,
  }),
  grinder('Brew', 'Rill, brewed', 'Brewed by the group', {
    xCm: 264,
    yCm: 146,
    stepMarks: 1,
    finer: 'up',
    dialMin: 1,
    dialMax: 30,
    seedSetting: 12,
    secondsPerMark: 6,
    retentionG: 5,
    rateGps: 2.6,
  }),
];

export const machines = [
  { name: 'Fern', groups: ['1', '2', '3'], xCm: 158, yCm: 4, widthCm: 126 },
  { name: 'Moss', groups: ['4', '5'], xCm: 52, yCm: 144, widthCm: 88 },
];

export const counters = [
  { id: demoId('counter long'), siteId: demoSiteId, faces: 'down' as const, xCm: 0, yCm: 0, widthCm: 420, depthCm: 60 },
  {
    id: demoId('counter short'),
    siteId: demoSiteId,
    faces: 'up' as const,
    xCm: 30,
    yCm: 140,
    widthCm: 290,
    depthCm: 60,
  },
];

export const fixtures = [
  { kind: 'knockBox', name: 'Knock box', xCm: 298, yCm: 30, widthCm: 18, depthCm: 26 },
  { kind: 'scale', name: 'Scale', xCm: 328, yCm: 36, widthCm: 18, depthCm: 18 },
  { kind: 'milk', name: 'Milk', xCm: 358, yCm: 14, widthCm: 50, depthCm: 40 },
] as const;
