import { describe, expect, it } from 'vitest';
import { MS_PER_MINUTE } from '../numbers/index.ts';
import { grindTimeForS, verifyDoses, type WeighedDose } from './doseTime.ts';

/** A dose ground at so many minutes. */
const dose = (grindTimeS: number, doseG: number, { x = 0, atMin = 0 } = {}): WeighedDose => ({
  ...{ grindTimeS, doseG, x },
  atMs: atMin * MS_PER_MINUTE,
});

describe('grind time', () => {
  it('follows the weighed rate', () => {
    // By hand: rate 18 / (9.3 - 0.3) = 2 g/s; 17 g needs 0.3 + 8.5 s
    expect(grindTimeForS([dose(9.3, 18)], 17, 0)).toBeCloseTo(8.8, 10);
  });

  it('takes longer at a finer mark', () => {
    // By hand: 0.3 + 9 exp(0.02 * 5) = 0.3 + 9 * 1.105171 = 10.2465
    expect(grindTimeForS([dose(9.3, 18)], 18, 5)).toBeCloseTo(10.2, 10);
  });

  it('averages doses of the same minutes', () => {
    // By hand: the mean of ln 18.4 and ln 17.6 is ln 17.996.
    expect(grindTimeForS([dose(9.3, 18.4), dose(9.3, 17.6)], 18, 0)).toBeCloseTo(9.3, 10);
    const scattered = [18.2, 17.8, 18.1, 17.9, 18.2].map((doseG, i) => dose(9.3, doseG, { atMin: i }));
    expect(grindTimeForS(scattered, 18, 0)).toBeCloseTo(9.3, 0);
  });

  it('believes this morning and not the days before', () => {
    const yesterday = Array.from({ length: 6 }, (_, i) => dose(7.2, 20, { atMin: 3 * i }));
    const today = dose(7.2, 19.3, { atMin: 18 * 60 });
    // By hand: 0.3 + 6.9 * 20 / 19.3 = 7.45; six doses to one would leave 7.2 as it is.
    expect(grindTimeForS([...yesterday, today], 20, 0)).toBeGreaterThanOrEqual(7.4);
    // Two minutes after the others the same dose is mostly its own scatter.
    const next = dose(7.2, 19.3, { atMin: 18 });
    expect(grindTimeForS([...yesterday, next], 20, 0)).toBeLessThanOrEqual(7.3);
  });

  it('begins anew with other beans', () => {
    const before = Array.from({ length: 6 }, (_, i) => dose(7.2, 20, { atMin: i }));
    const told = (beans?: 'newBag' | 'newCoffee'): number =>
      grindTimeForS([...before, { ...dose(7.2, 18, { atMin: 8 }), ...(beans && { beans }) }], 20, 0) ?? 0;
    expect(told('newBag')).toBeGreaterThan(told() + 0.3);
    // By hand: 0.3 + 6.9 * 20 / 18 = 7.97.
    expect(told('newCoffee')).toBeGreaterThanOrEqual(7.9);
  });

  it('says nothing where nothing usable was weighed', () => {
    expect(grindTimeForS([], 18, 0)).toBeNull();
    expect(grindTimeForS([dose(0.2, 18)], 18, 0)).toBeNull();
  });

  it('learns how much a finer mark slows this grinder', () => {
    // 4 % a mark instead of the usual 2 %: ten marks finer, the same nine seconds give 18 exp(-0.4) = 12.07 g.
    const doses = [0, 10, 0, 10, 0, 10].map((x, i) => dose(9.3, 18 * Math.exp(-0.04 * x), { x, atMin: i }));
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
