import { describe, expect, it } from 'vitest';
import { tasteChange } from './tasteChange.ts';
import { endOfShot, servesIt, tastesIt } from './ways.ts';

const recipe = { yieldG: 36, yieldToleranceG: 1.5, timeMinS: 25, timeMaxS: 30 };

describe('what becomes of a shot', () => {
  it.each([
    ['inside both', { yieldG: 36.5, timeS: 28 }, true, true],
    ['right yield, slow', { yieldG: 36, timeS: 31 }, true, false],
    // A tenth of 27.5 s beyond the window: 32.75 s.
    ['right yield, as slow as may be', { yieldG: 36, timeS: 32.7 }, true, false],
    ['right yield, beyond all limits', { yieldG: 36, timeS: 32.8 }, false, false],
    ['right yield, far too fast', { yieldG: 36, timeS: 20.5 }, false, false],
    ['right time, wrong yield', { yieldG: 39, timeS: 28 }, false, false],
  ])('%s', (_name, shot, yieldFirst, both) => {
    expect(servesIt({ whenTorn: 'yieldFirst' }, shot, recipe)).toBe(yieldFirst);
    expect(servesIt({ whenTorn: 'both' }, shot, recipe)).toBe(both);
  });

  it.each([
    ['whenNumbersFit', [false, true, false]],
    ['second', [false, true, true]],
    ['every', [true, true, true]],
  ] as const)('is tasted by the school "%s"', (tastes, expected) => {
    const shots = [22, 27, 33].map((timeS, i) => tastesIt({ tastes }, { yieldG: 36, timeS }, recipe, i + 1));
    expect(shots).toEqual(expected);
  });

  it('ends by yield less the drip, by time in the middle of the window, or by the machine', () => {
    expect(endOfShot({ endsShot: 'yield' }, recipe, 1.7)).toEqual({ by: 'yield', atG: 34.3 });
    expect(endOfShot({ endsShot: 'time' }, recipe, 1.7)).toEqual({ by: 'time', atS: 27.5 });
    expect(endOfShot({ endsShot: 'volume' }, recipe, 1.7)).toEqual({ by: 'volume' });
  });
});

describe('the one change for the taste', () => {
  const aim = { sourBitter: { low: 4, high: 6 }, weakStrong: { low: 4, high: 6 } };
  const change = (sourBitter: number, weakStrong: number, first: Parameters<typeof tasteChange>[2]) => {
    const found = tasteChange({ sourBitter, weakStrong }, aim, first);
    return found && [found.lever, found.by];
  };

  it('is none when it tastes as it should', () => {
    expect(change(4, 6, 'yield')).toBeNull();
  });

  it.each([
    // Sour alone: more out of the coffee. Strength alone: the lever that moves it the right way.
    [
      'sour',
      2,
      5,
      [
        ['yield', 0.06],
        ['grind', 1],
        ['dose', -0.3],
        ['temperature', 1],
      ],
    ],
    [
      'bitter',
      8,
      5,
      [
        ['yield', -0.06],
        ['grind', -1],
        ['dose', 0.3],
        ['temperature', -1],
      ],
    ],
    [
      'weak',
      5,
      2,
      [
        ['yield', -0.06],
        ['grind', 1],
        ['dose', 0.3],
        ['yield', -0.06],
      ],
    ],
    [
      'strong',
      5,
      8,
      [
        ['yield', 0.06],
        ['grind', -1],
        ['dose', -0.3],
        ['yield', 0.06],
      ],
    ],
    // Sour and thin: only finer mends both; longer would thin it further.
    [
      'sour and weak',
      2,
      2,
      [
        ['grind', 1],
        ['grind', 1],
        ['grind', 1],
        ['temperature', 1],
      ],
    ],
    [
      'bitter and strong',
      8,
      8,
      [
        ['grind', -1],
        ['grind', -1],
        ['grind', -1],
        ['temperature', -1],
      ],
    ],
    [
      'sour and strong',
      2,
      8,
      [
        ['yield', 0.06],
        ['yield', 0.06],
        ['dose', -0.3],
        ['temperature', 1],
      ],
    ],
    [
      'bitter and weak',
      8,
      2,
      [
        ['yield', -0.06],
        ['yield', -0.06],
        ['dose', 0.3],
        ['temperature', -1],
      ],
    ],
  ] as const)('%s: by yield, grind, dose, temperature first', (_name, sourBitter, weakStrong, expected) => {
    const levers = ['yield', 'grind', 'dose', 'temperature'] as const;
    expect(levers.map((first) => change(sourBitter, weakStrong, first))).toEqual(expected);
  });

  it('says when another lever takes the place of the first', () => {
    expect(tasteChange({ sourBitter: 2, weakStrong: 2 }, aim, 'yield')).toMatchObject({
      lever: 'grind',
      instead: true,
    });
    expect(tasteChange({ sourBitter: 2, weakStrong: 5 }, aim, 'yield')).toMatchObject({ instead: false });
  });
});
