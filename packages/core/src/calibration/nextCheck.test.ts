import { describe, expect, it } from 'vitest';
import { usualPolicy } from './adviceCase.ts';
import { nextCheckMin } from './nextCheck.ts';
import { aCase } from './testCases.ts';

const expected = (timeS: number, sd: number) => ({ setting: 30, trimG: 0, timeS, lowS: 0, highS: 0, inWindow: 0, sd });
const asked = (risk: number) => aCase({ house: { ...usualPolicy, risk, longestCheckMin: 120 } });

describe('minutes to the next check', () => {
  it('ends where the growing doubt reaches the risk', () => {
    // By hand, at 25.8 s: ln(25.8 / 25) = 0.03150. One-sided risk 0.2 is z = 0.8416, so sd = 0.03743 there (the far edge,
    // ln(30 / 25.8) = 0.151, is four sd away). From sd 0.02: drift variance 0.001401 - 0.0004 = 0.001001;
    // 0.035^2 an hour makes that 0.817 h = 49 min.
    expect(nextCheckMin(expected(25.8, 0.02), asked(0.2))).toBeGreaterThanOrEqual(48);
    expect(nextCheckMin(expected(25.8, 0.02), asked(0.2))).toBeLessThanOrEqual(49);
  });

  it('comes sooner for a smaller risk and for a mean nearer to an edge', () => {
    const usual = nextCheckMin(expected(25.8, 0.02), asked(0.2));
    expect(nextCheckMin(expected(25.8, 0.02), asked(0.1))).toBeLessThan(usual);
    expect(nextCheckMin(expected(25.4, 0.02), asked(0.2))).toBeLessThan(usual);
  });

  it('keeps to its floor and its ceiling', () => {
    expect(nextCheckMin(expected(20, 0.02), asked(0.2))).toBe(5);
    expect(nextCheckMin(expected(27.4, 0.001), asked(0.2))).toBe(120);
  });

  it('follows the clock, or nothing but changes, in houses that say so', () => {
    const by = (recheck: 'hours' | 'changes') =>
      nextCheckMin(expected(20, 0.02), aCase({ house: { ...usualPolicy, recheck, longestCheckMin: 45 } }));
    expect(by('hours')).toBe(45);
    expect(by('changes')).toBe(1_440);
  });
});
