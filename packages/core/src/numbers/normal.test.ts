import { describe, expect, it } from 'vitest';
import { chanceBetween, normalCdf, truncatedAbove } from './normal.ts';

describe('the normal distribution', () => {
  // Abramowitz and Stegun, Handbook of Mathematical Functions, table 26.1.
  it.each([
    [0, 0.5],
    [0.5, 0.6914624612740131],
    [1, 0.8413447460685429],
    [1.2815515655446004, 0.9],
    [2, 0.9772498680518208],
    [3, 0.9986501019683699],
    [-1.96, 0.024997895148220435],
  ])('P(Z <= %d) = %d', (z, p) => {
    expect(normalCdf(z) / p).toBeCloseTo(1, 10);
  });

  it('keeps its far tail to seven digits', () => {
    expect(normalCdf(-8) / 6.220960574271785e-16).toBeCloseTo(1, 7);
  });

  it('is a point for an sd of zero', () => {
    expect(chanceBetween(1, 0, 0, 2)).toBe(1);
    expect(chanceBetween(3, 0, 0, 2)).toBe(0);
  });

  it('knows the half normal: mean sqrt(2 / pi), variance 1 - 2 / pi', () => {
    const { meanShift, varianceFactor } = truncatedAbove(0);
    expect(meanShift).toBeCloseTo(Math.sqrt(2 / Math.PI), 12);
    expect(varianceFactor).toBeCloseTo(1 - 2 / Math.PI, 12);
  });

  it('stays finite far in the tail', () => {
    const { meanShift, varianceFactor } = truncatedAbove(60);
    expect(meanShift).toBeGreaterThan(60);
    expect(meanShift).toBeLessThan(60.1);
    expect(varianceFactor).toBeGreaterThanOrEqual(0);
  });
});
