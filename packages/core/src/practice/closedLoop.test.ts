import { describe, expect, it } from 'vitest';
import { aCase, aShot } from '../calibration/testCases.ts';
import { drawMorning, runMorning, type WayOfWorking } from './closedLoop.ts';
import { trueTimeS } from './simulatedShot.ts';
import { byAllKnowing, byEngine, byMeanOfThree, byRuleOfThumb } from './waysOfWorking.ts';

const MORNINGS = 200;
const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 } };
const run = (way: WayOfWorking) => {
  const results = Array.from({ length: MORNINGS }, (_, seed) => runMorning(drawMorning(seed + 1), way));
  const locked = results.filter((result) => result.locked);
  return {
    shots: results.reduce((sum, result) => sum + result.shots, 0) / MORNINGS,
    grams: results.reduce((sum, result) => sum + result.grams, 0) / MORNINGS,
    lockedShare: locked.length / MORNINGS,
    insideShare: locked.filter((result) => result.trulyInside).length / locked.length,
  };
};

describe('the truth of a simulated bed', () => {
  it('lands in the middle of the window at ln resistance 0, and leaves it either way', () => {
    const at = (lnResistance: number): number => trueTimeS({ lnResistance, groupEffect: 0, recipe });
    expect(at(0)).toBeGreaterThan(26.4);
    expect(at(0)).toBeLessThan(28.4);
    expect(at(0.2)).toBeGreaterThan(30);
    expect(at(-0.2)).toBeLessThan(25);
    expect(at(0.05)).toBeGreaterThan(at(0));
    expect(at(5)).toBe(Infinity);
  });
});

describe('a morning in closed loop', () => {
  it('is the same for the same seed', () => {
    expect(runMorning(drawMorning(11), byEngine)).toEqual(runMorning(drawMorning(11), byEngine));
  });

  it('takes the engine fewer shots and grams than the ways by hand, and leaves the bar right', () => {
    const [engine, thumb, mean, bound] = [run(byEngine), run(byRuleOfThumb), run(byMeanOfThree), run(byAllKnowing)];
    expect(engine.shots).toBeLessThan(0.7 * thumb.shots);
    expect(engine.grams).toBeLessThan(0.7 * thumb.grams);
    expect(engine.shots).toBeLessThan(0.7 * mean.shots);
    expect(engine.insideShare).toBeGreaterThan(0.93);
    expect(engine.lockedShare).toBeGreaterThan(0.98);
    // Nobody does better than the one who knows.
    expect(bound.shots).toBeLessThan(engine.shots);
    expect(bound.insideShare).toBeGreaterThanOrEqual(engine.insideShare);
  });
});

describe('the rule of thumb', () => {
  const morning = drawMorning(1);
  const after = (shots: Parameters<typeof aShot>[0][]) => byRuleOfThumb(aCase({ shots: shots.map(aShot) }), morning);

  it('moves by the miss over seconds-per-mark, with a purge', () => {
    // 27.4 - 20 = 7.4 s over 2.5 s a mark: three marks finer.
    expect(after([{ timeS: 20 }])).toEqual({ action: 'move', setting: 27, purgeG: 20 });
    expect(after([{ timeS: 35 }])).toMatchObject({ setting: 33 });
    expect(after([{ timeS: 24.9 }])).toMatchObject({ setting: 29 });
  });

  it('goes half way back after an overshoot', () => {
    expect(after([{ timeS: 18 }, { setting: 26, timeS: 40 }])).toMatchObject({ action: 'move', setting: 28 });
  });

  it('locks after two repeats inside, and a channel is no repeat', () => {
    expect(after([{ timeS: 27 }, { timeS: 28 }]).action).toBe('repeat');
    expect(after([{ timeS: 27 }, { timeS: 28 }, { timeS: 26 }]).action).toBe('lock');
    expect(after([{ timeS: 27 }, { timeS: 14, fault: 'channel' }]).action).toBe('repeat');
  });
});

describe('the mean of three', () => {
  it('decides at every third shot only', () => {
    const after = (times: number[]) =>
      byMeanOfThree(aCase({ shots: times.map((timeS) => aShot({ timeS })) }), drawMorning(1));
    expect(after([20, 20]).action).toBe('repeat');
    expect(after([24, 27, 29]).action).toBe('lock');
    expect(after([20, 21, 19])).toMatchObject({ action: 'move', setting: 27 });
  });
});
