import { describe, expect, it } from 'vitest';
import { bagSheetSchema, coffeeSheetSchema } from './coffee.ts';
import { cafeSheetSchema, recipeSchema, recipesQuerySchema, type Recipe } from './house.ts';
import { newStepSchema } from './journal.ts';
import { sheetPaths } from './sheetPaths.ts';
import { sheetSchemas } from './sheets.ts';

const recipe: Recipe = {
  name: 'House double',
  doseG: 18,
  doseToleranceG: 0.3,
  doseNoMore: false,
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
  pressureShape: '',
  tampG: null,
  tempC: 93,
  basketId: null,
  taste: null,
  prepSteps: [],
  roaster: null,
  retired: false,
};

describe('a recipe', () => {
  it.each<[string, Partial<Recipe>]>([
    ['brewed by the group', { yieldG: 250, timeMinS: 60, timeMaxS: 70, pressureBar: 3, firstDropMaxS: 15 }],
    ['a long soak, timed from its end', { timeFrom: 'soakEnd', soakS: 8, pauseS: 6, timeMinS: 20, firstDropMaxS: 25 }],
    ['timed from the first drop', { timeFrom: 'firstDrop', timeMinS: 5, timeMaxS: 9 }],
    ['a machine that sets nothing', { pressureBar: null, tempC: null }],
  ])('may be %s', (_name, change) => {
    expect(recipeSchema.safeParse({ ...recipe, ...change }).success).toBe(true);
  });

  it.each<[string, Partial<Recipe>, string]>([
    ['no name', { name: ' ' }, 'name'],
    ['a dose of two grams', { doseG: 2 }, 'doseG'],
    ['no number at all', { yieldG: NaN }, 'yieldG'],
    ['water that is steam', { tempC: 104 }, 'tempC'],
    ['a pressure of a burst boiler', { pressureBar: 40 }, 'pressureBar'],
    ['21 steps', { prepSteps: Array.from({ length: 21 }, () => 'Wipe') }, 'prepSteps'],
  ])('may not have %s, and says what to do', (_name, change, path) => {
    const { error } = recipeSchema.safeParse({ ...recipe, ...change });
    expect(error?.issues[0]?.path.join('.')).toBe(path);
    expect(error?.issues[0]?.message).toMatch(/^[A-Z].*\.$/);
  });
});

describe('sheets', () => {
  it('have a schema and a path of their own for every kind', () => {
    expect(Object.keys(sheetPaths).sort()).toEqual(Object.keys(sheetSchemas).sort());
    expect(new Set(Object.values(sheetPaths)).size).toBe(Object.keys(sheetSchemas).length);
  });

  it('refuse a field that nobody knows', () => {
    const coffee = { name: 'Canopy', kind: 'blend', decaf: false, roasterWords: '', pricePerKg: null, recipeId: null };
    const window = { restDays: 4, primeDays: 14, fadeDays: 28 };
    expect(coffeeSheetSchema.safeParse({ ...coffee, ...window }).success).toBe(true);
    expect(coffeeSheetSchema.safeParse({ ...coffee, ...window, colour: 'brown' }).success).toBe(false);
    expect(coffeeSheetSchema.safeParse({ ...coffee, ...window, primeDays: 30 }).error?.issues[0]?.path).toEqual([
      'fadeDays',
    ]);
  });

  it('take a bag that was frozen and thawed in order, and no other', () => {
    const bag = { coffeeId: '00000000-0000-4000-8000-000000000001', roastedOn: '2031-05-01', weightG: 1_000 };
    const frozen = (freezes: object[]) =>
      bagSheetSchema.safeParse({ ...bag, freezes, openedOn: null, finishedOn: null, label: '' }).success;
    expect(frozen([{ on: '2031-05-08', until: '2031-05-20' }])).toBe(true);
    expect(frozen([{ on: '2031-05-08', until: null }])).toBe(true);
    expect(frozen([{ on: '2031-05-08', until: '2031-05-02' }])).toBe(false);
    expect(frozen([{ on: '2031-04-30', until: null }])).toBe(false);
  });

  it('know the time zones and currencies of the world, not of a greenhouse', () => {
    const cafe = { name: 'Shed', dayStartsMin: 240, opensMin: 450, closesMin: 1_080, altitudeM: 60 };
    const read = (timeZone: string, currency: string) =>
      cafeSheetSchema.safeParse({ ...cafe, timeZone, currency }).success;
    expect([read('Asia/Kathmandu', 'NPR'), read('Moss/Fern', 'NPR'), read('UTC', 'beans')]).toEqual([
      true,
      false,
      false,
    ]);
  });
});

describe('what a list may be asked', () => {
  it('has its usual look, reads what an address says, and refuses the rest', () => {
    expect(recipesQuerySchema.parse({})).toEqual({
      search: '',
      sort: 'name',
      descending: false,
      page: 1,
      perPage: 25,
      retired: false,
    });
    const asked = recipesQuerySchema.parse({ search: ' Guest ', page: '3', descending: 'true', sort: 'doseG' });
    expect(asked).toMatchObject({ search: 'Guest', page: 3, descending: true, sort: 'doseG' });
    for (const bad of [{ page: '0' }, { perPage: '5000' }, { sort: 'name; DROP TABLE bag' }, { colour: 'brown' }]) {
      expect(recipesQuerySchema.safeParse(bad).success).toBe(false);
    }
  });
});

describe('a step of a machine', () => {
  const step = {
    id: '01890a5d-ac96-774b-bcce-b302099a8057',
    siteId: '00000000-0000-4000-8000-000000000001',
    kind: 'step',
    at: '2031-05-04T05:30:00Z',
    skewMs: null,
    personId: '00000000-0000-4000-8000-000000000003',
    grinderId: null,
    groupId: null,
    body: {
      step: 'hot',
      machineId: '00000000-0000-4000-8000-000000000002',
      readings: [{ gauge: 'Steam', value: 1.2 }],
      takesBack: null,
    },
  };
  it('is of a machine, never of a grinder', () => {
    expect(newStepSchema.safeParse(step).success).toBe(true);
    expect(newStepSchema.safeParse({ ...step, grinderId: step.siteId }).success).toBe(false);
    expect(
      newStepSchema.safeParse({ ...step, body: { ...step.body, readings: [{ gauge: '', value: 1 }] } }).success,
    ).toBe(false);
  });
});
