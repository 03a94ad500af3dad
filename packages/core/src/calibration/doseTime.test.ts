import { describe, expect, it } from 'vitest';
import { grindTimeForS, verifyDoses } from './doseTime.ts';

describe('grind time', () => {
  it('follows the weighed rate', () => {
    // By hand: rate 18 / (9.3 - 0.3) = 2 g/s; 17 g needs 0.3 + 8.5 s
    expect(grindTimeForS([{ grindTimeS: 9.3, doseG: 18, x: 0 }], 17, 0)).toBeCloseTo(8.8, 10);
  });

  it('takes longer at a finer mark', () => {
    // By hand: 0.3 + 9 exp(0.02 * 5) = 0.3 + 9 * 1.105171 = 10.2465
    expect(grindTimeForS([{ grindTimeS: 9.3, doseG: 18, x: 0 }], 18, 5)).toBeCloseTo(10.2, 10);
  });

  it('averages several weighings and forgets the oldest', () => {
    const old = { grindTimeS: 9.3, doseG: 9, x: 0 };
    const fresh = Array.from({ length: 6 }, () => ({ grindTimeS: 9.3, doseG: 18, x: 0 }));
    expect(grindTimeForS([old, ...fresh], 18, 0)).toBeCloseTo(9.3, 10);
  });

  it('says nothing where nothing usable was weighed', () => {
    expect(grindTimeForS([], 18, 0)).toBeNull();
    expect(grindTimeForS([{ grindTimeS: 0.2, doseG: 18, x: 0 }], 18, 0)).toBeNull();
  });

  it('learns how much a finer mark slows this grinder', () => {
    // 4 % a mark instead of the usual 2 %: ten marks finer, the same nine seconds give 18 exp(-0.4) = 12.07 g.
    const doses = [0, 10, 0, 10, 0, 10].map((x) => ({ grindTimeS: 9.3, doseG: 18 * Math.exp(-0.04 * x), x }));
    // By hand: 0.3 + 9 exp(0.04 * 10) = 13.73; by the usual loss it would be 11.29.
    expect(grindTimeForS(doses, 18, 10)).toBeCloseTo(13.7, 0);
    expect(grindTimeForS(doses, 18, 5)).toBeGreaterThan(10.6);
  });
});

describe('verifying a grind time', () => {
  const recipe = { doseG: 18, toleranceG: 0.3 };

  it('tells the mean and the spread', () => {
    // By hand: mean 18.1; squares 0.01 + 0.01 + 0.04 = 0.06 about it, over two: sd 0.1732.
    const verdict = verifyDoses([18, 18, 18.3], recipe);
    expect(verdict.meanG).toBeCloseTo(18.1, 10);
    expect(verdict.sdG).toBeCloseTo(0.1732, 4);
    expect(verdict).toMatchObject({ count: 3, holds: true });
  });

  it('does not hold with a mean outside, with a wide spread, or on a single dose', () => {
    expect(verifyDoses([18.4, 18.5, 18.3], recipe).holds).toBe(false);
    expect(verifyDoses([17.4, 18.6, 18], recipe).holds).toBe(false);
    expect(verifyDoses([18], recipe).holds).toBe(false);
    expect(verifyDoses([18.3, 18.3], recipe).holds).toBe(true);
    expect(() => verifyDoses([], recipe)).toThrow('no dose');
  });
});
