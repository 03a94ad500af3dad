import { describe, expect, it } from 'vitest';
import { gaussian, seededRandom, seedFrom } from './random.ts';
import { weather } from '../practice/surroundings.ts';

const DRAWS = 20_000;

describe('chance that is handed in', () => {
  it('is the same for the same seed and another for another', () => {
    const draw = (seed: number): number[] => Array.from({ length: 5 }, seededRandom(seed));
    expect(draw(7)).toEqual(draw(7));
    expect(draw(7)).not.toEqual(draw(8));
    expect(seedFrom('House')).toBe(seedFrom('House'));
    expect(seedFrom('House')).not.toBe(seedFrom('Guest'));
  });

  it('is even between 0 and 1', () => {
    const random = seededRandom(3);
    const draws = Array.from({ length: DRAWS }, random);
    expect(Math.min(...draws)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...draws)).toBeLessThan(1);
    expect(draws.reduce((sum, draw) => sum + draw, 0) / DRAWS).toBeCloseTo(0.5, 2);
  });

  it('has normal draws of mean 0 and variance 1, with normal tails', () => {
    const random = seededRandom(4);
    const draws = Array.from({ length: DRAWS }, () => gaussian(random));
    const mean = draws.reduce((sum, draw) => sum + draw, 0) / DRAWS;
    const variance = draws.reduce((sum, draw) => sum + (draw - mean) ** 2, 0) / DRAWS;
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(variance).toBeCloseTo(1, 1);
    // P(|Z| > 1.96) = 5 %
    expect(draws.filter((draw) => Math.abs(draw) > 1.96).length / DRAWS).toBeCloseTo(0.05, 2);
  });

  it('makes weather that is smooth within the hour and wanders over days', () => {
    const hour = 3_600_000;
    const at = Array.from({ length: 24 * 14 }, (_, i) => weather('site', i * hour));
    const steps = at.slice(1).map((value, i) => Math.abs(value - at[i]!));
    expect(Math.max(...steps)).toBeLessThan(0.06);
    expect(Math.max(...at) - Math.min(...at)).toBeGreaterThan(0.1);
  });
});
