import { describe, expect, it } from 'vitest';
import { mean, median, quantile, standardDeviation, sum, variance } from './statistics.ts';

describe('what a sample says', () => {
  // By hand: deviations -3, -1, -1, -1, 0, 0, 2, 4 of the mean 5; squares sum to 32.
  const sample = [2, 4, 4, 4, 5, 5, 7, 9];

  it('has the mean, variance and sd of a hand calculation', () => {
    expect(sum(sample)).toBe(40);
    expect(mean(sample)).toBe(5);
    expect(variance(sample)).toBeCloseTo(32 / 7, 12);
    expect(standardDeviation(sample)).toBeCloseTo(Math.sqrt(32 / 7), 12);
  });

  it.each([
    [0, 1],
    [0.25, 1.75],
    [0.5, 2.5],
    [1, 4],
  ])('has its %f quantile at %f (type 7)', (share, expected) => {
    expect(quantile([4, 1, 3, 2], share)).toBe(expected);
  });

  it('takes one value as all of its quantiles, and a constant sample as sure', () => {
    expect([quantile([3], 0.1), median([3]), mean([3])]).toEqual([3, 3, 3]);
    expect(standardDeviation([2, 2, 2])).toBe(0);
  });

  it('refuses what has no answer, by name', () => {
    expect(() => mean([])).toThrow(/mean/);
    expect(() => variance([1])).toThrow(/variance/);
    expect(() => quantile([], 0.5)).toThrow(/quantile/);
    expect(() => quantile([1], 1.5)).toThrow(/0\.\.1/);
  });
});
