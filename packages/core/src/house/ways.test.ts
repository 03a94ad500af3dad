import { describe, expect, it } from 'vitest';
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
