import { describe, expect, it } from 'vitest';
import { advise } from './advise.ts';
import { usualPolicy, type AdviceCase } from './adviceCase.ts';
import { liesBetween } from './betweenMarks.ts';
import { aCase, aShot } from './testCases.ts';

/** Shots as [setting, seconds], of a house that only turns the collar; its window is 25 to 30 s. */
const pulled = (...shots: [number, number][]): AdviceCase =>
  aCase({
    since: null,
    retentionG: 0,
    // The house believes that a mark is worth less than it is.
    secondsPerMark: 3,
    house: { ...usualPolicy, trim: 'none' },
    shots: shots.map(([setting, timeS]) => aShot({ setting, timeS, purgedG: 20, firstDropS: null })),
  });
const between = (input: AdviceCase, from: number, to: number): boolean =>
  liesBetween(input, advise(input).fit, from, to);

describe('between two marks', () => {
  const toAndFro = pulled([30, 24.4], [30, 24.2], [29, 31.4], [29, 31.6], [30, 24.3], [30, 24.1]);

  it('it lies where both were tried twice, each outside on its own side, and this one by less', () => {
    // 30 runs 0.7 s fast in the mean, 29 runs 1.5 s slow.
    expect(between(toAndFro, 30, 29)).toBe(true);
    expect(between(toAndFro, 29, 30)).toBe(false);
  });

  it('one shot at a mark does not say it, nor a mark that holds, nor two on the same side', () => {
    expect(between(pulled([30, 23.8], [30, 24.2], [29, 31.5]), 30, 29)).toBe(false);
    expect(between(pulled([30, 23.8], [30, 24.2], [29, 27.5], [29, 28.1]), 30, 29)).toBe(false);
    expect(between(pulled([30, 20.1], [30, 20.4], [29, 24.1], [29, 23.8]), 30, 29)).toBe(false);
  });

  it('the nearer one is called close enough, with its chance, and nobody turns on', () => {
    const advice = advise(toAndFro);
    expect(advice).toMatchObject({ action: 'repeat', setting: 30 });
    expect(advice.closeEnough).not.toBeNull();
  });
});
