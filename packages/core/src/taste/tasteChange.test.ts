import { describe, expect, it } from 'vitest';
import { standingFacts } from '../facts/index.ts';
import { stepMaker } from '../facts/testFacts.ts';
import { leverEffects, tastedChanges } from './leverEffects.ts';
import { changesTo, judgeTaste, tasteAimOf, usualTasteAim } from './tasteChange.ts';
import { sheetOf, untasted, type Tasted } from './tasteSheet.ts';
import { aimAfter, type AimChange } from './todaysAim.ts';

const aim = { sourBitter: { low: 4, high: 6 }, weakStrong: { low: 4, high: 6 } };
const levers = ['yield', 'grind', 'dose', 'temperature'] as const;

describe('numbers of one’s own', () => {
  const aim = { doseG: 18.5, yieldG: 37, tempC: null, timeMinS: 27, timeMaxS: 31 };
  const stays = { yieldG: 37, doseG: 18.5, tempC: null, marksFiner: 0 };

  it('are reached to the tenth of a gram, whatever they are', () => {
    for (const [yieldG, doseG] of [
      [40, 18.5],
      [35.3, 18.1],
      [52.7, 19.4],
    ] as const) {
      const changes = changesTo({ ...stays, yieldG, doseG }, aim);
      expect(aimAfter(aim, changes as AimChange[])).toMatchObject({ yieldG, doseG });
    }
  });

  it('change what differs and nothing else; a machine’s own temperature is left to it', () => {
    expect(changesTo(stays, aim)).toEqual([]);
    expect(changesTo({ ...stays, doseG: 18.1, marksFiner: -1, tempC: 94 }, aim)).toEqual([
      { lever: 'grind', by: -1 },
      { lever: 'dose', by: -0.4 },
    ]);
  });
});

describe('the one change for the taste', () => {
  const change = (tasted: Partial<Tasted>, first: (typeof levers)[number]) => {
    const found = judgeTaste({ ...untasted, ...tasted }, aim, first).change;
    return found && [found.lever, found.by];
  };

  it('is none when it tastes as it should, and none where nobody said', () => {
    expect(change({ acidity: 6, bitterness: 4, strength: 6 }, 'yield')).toBeNull();
    expect(change({ sweetness: 2 }, 'yield')).toBeNull();
  });

  it.each([
    // Sour alone: more out of the coffee, or less of it drawn out further.
    [
      'sour',
      { acidity: 8 },
      [
        ['yield', 0.06],
        ['grind', 1],
        ['dose', -0.3],
        ['temperature', 1],
      ],
    ],
    [
      'bitter',
      { bitterness: 8 },
      [
        ['yield', -0.06],
        ['grind', -1],
        ['dose', 0.3],
        ['temperature', -1],
      ],
    ],
    // Strength alone: the lever that moves it the right way; heat does not, so the first that does.
    [
      'weak',
      { strength: 2 },
      [
        ['yield', -0.06],
        ['grind', 1],
        ['dose', 0.3],
        ['yield', -0.06],
      ],
    ],
    [
      'strong',
      { strength: 8 },
      [
        ['yield', 0.06],
        ['grind', -1],
        ['dose', -0.3],
        ['yield', 0.06],
      ],
    ],
    [
      'sour and strong',
      { acidity: 8, strength: 8 },
      [
        ['yield', 0.06],
        ['yield', 0.06],
        ['dose', -0.3],
        ['temperature', 1],
      ],
    ],
    [
      'bitter and weak',
      { bitterness: 8, strength: 2 },
      [
        ['yield', -0.06],
        ['yield', -0.06],
        ['dose', 0.3],
        ['temperature', -1],
      ],
    ],
    [
      'bitter and strong',
      { bitterness: 8, strength: 8 },
      [
        ['grind', -1],
        ['grind', -1],
        ['grind', -1],
        ['temperature', -1],
      ],
    ],
    // Sour and weak: a longer yield would thin it further, so finer.
    [
      'sour and weak',
      { acidity: 8, strength: 2 },
      [
        ['grind', 1],
        ['grind', 1],
        ['grind', 1],
        ['temperature', 1],
      ],
    ],
  ] as const)('%s, by each first lever', (_, tasted, expected) => {
    expect(levers.map((first) => change(tasted, first))).toEqual(expected);
  });

  it('says when another lever takes the place of the first, and names the others that help', () => {
    const both = judgeTaste({ ...untasted, acidity: 8, strength: 2 }, aim, 'yield');
    expect(both).toMatchObject({ instead: true, faults: ['sour', 'weak'] });
    const sour = judgeTaste({ ...untasted, acidity: 8 }, aim, 'yield');
    expect(sour).toMatchObject({ instead: false, atOnce: null });
    expect(sour.alternatives.map(({ lever }) => lever)).toEqual(['grind', 'dose', 'temperature']);
  });

  it('offers two at once for a cup that is sour and bitter, which no lever alone mends', () => {
    const uneven = judgeTaste({ ...untasted, acidity: 8, bitterness: 8 }, aim, 'yield');
    expect(uneven).toMatchObject({ faults: ['both'], change: null });
    expect(uneven.atOnce).toEqual([
      { lever: 'dose', by: -0.4 },
      { lever: 'grind', by: -1 },
    ]);
  });
});

describe('what a lever does', () => {
  it('is the table of the house, until its own cups say otherwise', () => {
    expect(leverEffects([]).dose.bitterness.mean).toBe(-1);
    expect(leverEffects([], 'lessBitter').dose.bitterness.mean).toBe(1);
    const cup = (acidity: number): Tasted => ({ ...untasted, acidity });
    const taught = leverEffects([{ lever: 'yield', steps: 1, before: cup(8), after: cup(5) }]);
    // By hand: table -1 with variance 1, one word -3 with variance 2.25: (-1 - 3 / 2.25) / (1 + 1 / 2.25).
    expect(taught.yield.acidity.mean).toBeCloseTo((-1 - 3 / 2.25) / (1 + 1 / 2.25), 9);
    expect(taught.yield.acidity.sd).toBeCloseTo(Math.sqrt(1 / (1 + 1 / 2.25)), 9);
    expect(taught.yield.bitterness).toEqual({ mean: 1, sd: 1 });
  });

  it('is taught by tastings before and after one change, and by no two at once', () => {
    const step = stepMaker();
    const old = { sourBitter: null, weakStrong: null, body: null, sweetness: null, notes: [], tdsPct: null };
    const cup = (acidity: number, minutes: number) =>
      step({ step: 'tasted', grinderId: 'house', tasterId: 'ines', ...old, acidity }, minutes);
    const settled = (lever: 'yield' | 'dose', by: number, minutes: number) =>
      step({ step: 'tasteSettled', grinderId: 'house', change: { lever, by } }, minutes);
    const one = standingFacts([cup(8, 0), settled('yield', 0.12, 1), cup(5, 10)]);
    expect(tastedChanges(one)).toMatchObject([
      { lever: 'yield', steps: 2, before: { acidity: 8 }, after: { acidity: 5 } },
    ]);
    const two = standingFacts([cup(8, 0), settled('yield', 0.06, 1), settled('dose', -0.3, 1.5), cup(5, 10)]);
    expect(tastedChanges(two)).toEqual([]);
  });
});

describe('an older sheet', () => {
  it('spoke of acidity below the middle of its one axis, and of bitterness above', () => {
    const step = stepMaker();
    const old = (sourBitter: number) =>
      sheetOf(
        step({
          step: 'tasted',
          grinderId: 'house',
          tasterId: 'ines',
          sourBitter,
          weakStrong: 4,
          body: null,
          sweetness: 6,
          notes: [],
          tdsPct: null,
        }) as Parameters<typeof sheetOf>[0],
      ).tasted;
    expect(old(2)).toMatchObject({ acidity: 8, bitterness: null, strength: 4, sweetness: 6 });
    expect(old(7)).toMatchObject({ acidity: null, bitterness: 7 });
  });
});

describe('what a coffee should taste of where its recipe says nothing', () => {
  it('is livelier for a light roast, may be more bitter for a dark one, and thinner without caffeine', () => {
    expect(tasteAimOf({ roast: 'medium', decaf: false })).toEqual(usualTasteAim);
    expect(tasteAimOf({ roast: 'light', decaf: false }).sourBitter).toEqual({ low: 3, high: 6 });
    expect(tasteAimOf({ roast: 'dark', decaf: true })).toEqual({
      sourBitter: { low: 4, high: 7 },
      weakStrong: { low: 3, high: 7 },
    });
  });
});
