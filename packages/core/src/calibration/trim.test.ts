import { describe, expect, it } from 'vitest';
import { usualPolicy } from './adviceCase.ts';
import { advise } from './advise.ts';
import { aCase } from './testCases.ts';
import { lnOfTrim } from './lnOfTrim.ts';
import { trimByHand, trimDoses, trimReach } from './trim.ts';

const station = (secondsPerMark: number, stepMarks = 1) =>
  aCase({ secondsPerMark, dial: { stepMarks, finer: 'down', range: null } });
const lineOf = (input: ReturnType<typeof aCase>) => advise(input).fit.line;

describe('what the dose may take up', () => {
  it('is 0.2 to 0.4 g either way where a step is more than a fifth of the window', () => {
    // By hand: the window is ln(30 / 25) = 0.1823, a fifth of it 0.0365, which is 1.0 s of 27.4 s.
    expect(trimDoses(station(1.1), lineOf(station(1.1)))).toEqual([0.2, -0.2, 0.3, -0.3, 0.4, -0.4]);
    expect(trimDoses(station(0.9), lineOf(station(0.9)))).toEqual([]);
    expect(trimDoses(station(9, 0.1), lineOf(station(9, 0.1)))).toEqual([]);
  });

  it('moves the time by the dose exponent', () => {
    // By hand: ln(18.4 / 18) = 0.021979; times 2.2 = 0.048354.
    expect(lnOfTrim({ doseG: 18 }, 0.4)).toBeCloseTo(0.021979, 6);
    expect(trimReach(station(3), lineOf(station(3)))).toBeCloseTo(0.048354, 6);
    expect(lnOfTrim({ doseG: 18 }, 0)).toBe(0);
  });

  it('is nothing in a house that does not trim', () => {
    const strict = { ...station(5), house: { ...usualPolicy, trim: 'none' as const } };
    expect(trimReach(strict, lineOf(strict))).toBe(0);
  });

  it('is told, not done, in houses that trim by the yield or the tamp', () => {
    const house = (trim: 'yield' | 'tamp') => ({ ...station(4), house: { ...usualPolicy, trim } });
    const told = (trim: 'yield' | 'tamp', expectedS: number) => trimByHand(house(trim), lineOf(house(trim)), expectedS);
    expect(trimDoses(house('yield'), lineOf(house('yield')))).toEqual([]);
    // The middle is sqrt(25 * 30) = 27.386 s. From 25.5 s: 36 g * (27.386 / 25.5) ^ (1 / 0.95) = 38.8 g.
    expect(told('yield', 25.5)).toEqual({ by: 'yield', toG: 38.8 });
    const tamp = told('tamp', 25.5);
    expect(tamp?.by === 'tamp' && tamp.offS).toBeCloseTo(1.886, 2);
    // Nearer to the middle than a quarter of a step nobody trims; nor where the collar is fine enough.
    expect(told('yield', 27)).toBeNull();
    const fine = { ...station(0.5), house: { ...usualPolicy, trim: 'yield' as const } };
    expect(trimByHand(fine, lineOf(fine), 25.5)).toBeNull();
  });
});
