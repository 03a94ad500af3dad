import { describe, expect, it } from 'vitest';
import { boilingPointC, boilsAt } from './boilingPoint.ts';
import { carryOverC, drinkCard, type Drink } from './cuts.ts';
import { paceHelp, paceOf, type PacedDrink } from './pace.ts';
import { ratioOf, yieldOfRatioG } from './ratio.ts';
import { usualBeside } from './usualBeside.ts';
import { pumpWindowS } from './recipeWindow.ts';
import { digitsFor, kept, shown, shownSpan, usualUnits, type Units } from './units.ts';

describe('where water boils', () => {
  it.each([
    [0, 100],
    [60, 99.8],
    [300, 99],
    [1_650, 94.5],
    [2_250, 92.5],
    [3_600, 88],
    [-300, 101],
  ])('at %i m: %f degC', (altitudeM, expected) => {
    expect(boilingPointC(altitudeM)).toBeCloseTo(expected, 6);
  });

  it('warns half a degree before it spits', () => {
    expect(boilsAt(94, 1_650)).toBe(false);
    expect(boilsAt(94.1, 1_650)).toBe(true);
    expect(boilsAt(96, 0)).toBe(false);
  });
});

describe('ratio and yield', () => {
  it.each([
    [18, 36, 2],
    [17.5, 42, 2.4],
    [20, 250, 12.5],
    [7, 25, 3.57],
  ])('%f g in, %f g out is 1 : %f', (doseG, yieldG, ratio) => {
    expect(ratioOf(doseG, yieldG)).toBe(ratio);
  });

  it('give each other, to the tenth that the scale shows', () => {
    expect(yieldOfRatioG(18, 2)).toBe(36);
    expect(yieldOfRatioG(17.5, 2.33)).toBe(40.8);
    expect(ratioOf(0, 36)).toBeNull();
  });
});

describe('the window on the bench clock', () => {
  const recipe = { timeMinS: 20, timeMaxS: 26, firstDropMinS: 4, firstDropMaxS: 8, soakS: 7, pauseS: 5 };
  it.each([
    ['pump', { min: 20, max: 26 }],
    ['firstDrop', { min: 26, max: 32 }],
    ['soakEnd', { min: 32, max: 38 }],
  ] as const)('counted from %s', (timeFrom, expected) => {
    expect(pumpWindowS({ ...recipe, timeFrom })).toEqual(expected);
  });
});

describe('drinks as cuts of 18 g in, 36 g out', () => {
  const recipe = { doseG: 18, yieldG: 36 };
  const drink = (change: Partial<Drink>): Drink => ({
    share: 1,
    baskets: 1,
    milkMl: 0,
    foamMm: 0,
    milkTempC: 60,
    waterMl: 0,
    ...change,
  });

  it.each([
    ['a double', {}, { doseG: 18, espressoG: 36, stopAtG: 36, milkG: 0, waterG: 0, stopSteamC: null }],
    ['half a split double', { baskets: 0.5 }, { doseG: 9, espressoG: 18, stopAtG: 36 }],
    ['a short one', { share: 0.65 }, { doseG: 18, espressoG: 23.4, stopAtG: 23.4 }],
    ['two shorts in one cup', { share: 0.5, baskets: 2 }, { doseG: 36, espressoG: 36, stopAtG: 18 }],
    // 200 ml weigh 206 g; 200 ml climb on by 10 - 5 * 80 / 480 = 9.2 degC.
    ['with milk', { milkMl: 200 }, { espressoG: 36, milkG: 206, stopSteamC: 51 }],
    ['water first', { waterMl: 120 }, { espressoG: 36, waterG: 120, stopSteamC: null }],
  ])('%s', (_name, change, expected) => {
    const card = drinkCard(drink(change), recipe);
    for (const [key, value] of Object.entries(expected)) {
      if (value === null) expect(card[key as keyof typeof card]).toBeNull();
      else expect(card[key as keyof typeof card]).toBeCloseTo(value, 6);
    }
  });

  it.each([
    [60, 10],
    [120, 10],
    [360, 7.5],
    [600, 5],
    [900, 5],
  ])('%i ml of milk climb on by %f degC', (milkMl, expected) => {
    expect(carryOverC(milkMl)).toBeCloseTo(expected, 6);
  });
});

describe('the pace', () => {
  const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 } };
  const double: PacedDrink = {
    share: 1,
    baskets: 1,
    milkMl: 0,
    foamMm: 0,
    milkTempC: 60,
    waterMl: 0,
    recipe,
    rateGps: 2,
    orders: 100,
  };
  const bar = { groups: 3, grinders: 1, wands: 2, people: 2 };

  it('names the hands at a bar with groups to spare', () => {
    // A double: hands 28 + 10 s, two people: 7,200 / 38 an hour; grinder 18 / 2 + 3 = 12 s: 300; groups 27.5 + 12 s.
    expect(paceOf([double], bar)).toMatchObject({
      bottleneck: 'people',
      busyS: { grinders: 12, groups: 39.5, wands: 0 },
    });
    expect(paceOf([double], bar)?.drinksPerHour).toBeCloseTo(189.47, 1);
  });

  it('names the group when there is one, and the grinder when the chute is slow', () => {
    expect(paceOf([double], { ...bar, groups: 1 })).toMatchObject({ bottleneck: 'groups' });
    expect(paceOf([double], { ...bar, groups: 1 })?.drinksPerHour).toBeCloseTo(91.14, 1);
    expect(paceOf([{ ...double, rateGps: 0.6 }], bar)?.bottleneck).toBe('grinders');
  });

  it('names the wand for milk drinks at one wand', () => {
    // 220 ml: 226.6 g * 3.93 * 55 K / 1,900 W = 25.8 s, and 8 s of care.
    const latte = { ...double, milkMl: 220 };
    expect(paceOf([latte], { ...bar, wands: 1, people: 4 })).toMatchObject({ bottleneck: 'wands' });
    expect(paceOf([latte], { ...bar, wands: 1, people: 4 })?.drinksPerHour).toBeCloseTo(106.5, 0);
  });

  it('says what would help: hands where they are short, a spare portafilter where the group is', () => {
    // Two pairs of hands allow 189 an hour, three 284; three groups of 39.5 s allow 273 of them, filled ahead 332.
    expect(paceHelp([double], bar)).toEqual([
      { what: 'both', drinksPerHour: expect.closeTo(284.2, 0) },
      { what: 'hands', drinksPerHour: expect.closeTo(273.4, 0) },
    ]);
    // One group of 27.5 + 12 s allows 91 an hour; with 5 s of changing 111.
    expect(paceHelp([double], { ...bar, groups: 1 })).toEqual([
      { what: 'spare', drinksPerHour: expect.closeTo(110.8, 0) },
    ]);
    // One pair of hands and one group: 94.7 against 91.1; the spare brings the hands' 94.7, both bring 110.8.
    expect(paceHelp([double], { ...bar, groups: 1, people: 1 }).map(({ what }) => what)).toEqual(['both', 'spare']);
  });

  it('weighs drinks by their share of the orders, and says nothing of an empty menu', () => {
    const half = paceOf([double, { ...double, baskets: 0.5 }], bar);
    expect(half?.busyS.grinders).toBeCloseTo(9, 6);
    expect(paceOf([{ ...double, orders: 0 }], bar)).toBeNull();
    expect(paceOf([double], { ...bar, groups: 0 })).toBeNull();
  });
});

describe('units', () => {
  const american: Units = { mass: 'oz', volume: 'fl oz', temperature: '°F', pressure: 'psi' };

  it.each([
    ['mass', 28.35, 1, 3],
    ['mass', 18, 0.635, 3],
    ['volume', 29.57, 1, 3],
    ['temperature', 93, 199.4, 6],
    ['temperature', 0, 32, 6],
    ['pressure', 9, 130.53, 2],
  ] as const)('%s: %f is shown as %f, and comes back', (dimension, value, expected, digits) => {
    expect(shown(dimension, value, american)).toBeCloseTo(expected, digits);
    expect(kept(dimension, shown(dimension, value, american), american)).toBeCloseTo(value, 9);
    expect(shown(dimension, value, usualUnits)).toBe(value);
  });

  it('leave the zero of the scale out of a difference', () => {
    expect(shownSpan('temperature', 5, american)).toBe(9);
    expect(digitsFor('mass', 1, american)).toBe(3);
    expect(digitsFor('pressure', 0, american)).toBe(0);
  });
});

describe('what is usual beside a yield and a time', () => {
  it.each([
    ['the usual double', { yieldG: 36, timeMinS: 25, timeMaxS: 30 }, [1.5, 4, 8]],
    ['a short one', { yieldG: 18, timeMinS: 20, timeMaxS: 24 }, [1, 3, 6]],
    ['a cup that takes a minute', { yieldG: 320, timeMinS: 55, timeMaxS: 65 }, [13.5, 9, 18]],
  ])('goes along with %s', (_, shot, [yieldToleranceG, firstDropMinS, firstDropMaxS]) => {
    expect(usualBeside(shot)).toEqual({ yieldToleranceG, firstDropMinS, firstDropMaxS });
  });
});
