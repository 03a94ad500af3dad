import { describe, expect, it } from 'vitest';
import { foundAtTheBench, foundByHand, type DrawnTimer } from './doseTimer.ts';

const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 };
/** 2 g/s after a lag of 0.3 s, two percent less a mark, without scatter. */
const timer = (yesterdayS: number): DrawnTimer => {
  const meanG = (timeS: number, x: number): number => 2 * (timeS - 0.3) * Math.exp(-0.02 * x);
  return {
    yesterdayS,
    yesterdayG: [18, 18, 18, 18],
    meanG,
    grindG: (timeS, x) => Math.round(10 * meanG(timeS, x)) / 10,
  };
};

describe('finding a dose time', () => {
  it('at the bench costs only what is scooped off, and follows the collar', () => {
    // 9.8 s give 19 g, a gram too much; the next dose fits, and so does the time at four marks finer.
    const found = foundAtTheBench(timer(9.8), recipe, [0, 0, 4, 4]);
    expect(found.doses).toBe(0);
    expect(found.thrownG).toBeGreaterThan(0.9);
    expect(found.thrownG).toBeLessThan(1.5);
    expect(found.right).toBe(true);
  });

  it('by hand throws away every dose that is off, and three at the end', () => {
    // 9.8 s give 19 g: thrown away; in proportion 9.3 s give 18 g, which holds, and is proven by three.
    const found = foundByHand(timer(9.8), recipe, [0, 0]);
    expect(found).toMatchObject({ doses: 4, right: true });
    expect(found.thrownG).toBeCloseTo(19 + 3 * 18, 6);
  });
});
