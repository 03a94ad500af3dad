import { describe, expect, it } from 'vitest';
import { standingFacts } from '../facts/index.ts';
import { stepMaker } from '../facts/testFacts.ts';
import { morningsOf } from './mornings.ts';

const step = stepMaker();
const at = (minutes: number): string => new Date(Date.parse('2031-05-04T06:00:00Z') + minutes * 60_000).toISOString();
const planned = (minutes: number, fromMin = minutes, run?: 'closing') =>
  step(
    { step: 'planned', opensAt: at(150), from: at(fromMin), people: [], detergent: false, ...(run ? { run } : {}) },
    minutes,
  );
const signedOff = (minutes: number) => step({ step: 'signedOff', notRight: [] }, minutes);
const dayOf = (atMs: number): string => new Date(atMs).toISOString().slice(0, 10);
const minutesOf = (...steps: Parameters<typeof standingFacts>[0]): number[] =>
  morningsOf(standingFacts(steps), dayOf).map(({ fromMs, readyMs }) => (readyMs - fromMs) / 60_000);

describe('mornings', () => {
  it('run from their beginning to their signature, however often they were planned anew', () => {
    // Begun at 0, planned anew at 20 from the same beginning, signed at 95.
    expect(minutesOf(planned(0), planned(20, 0), signedOff(95))).toEqual([95]);
    // Begun anew at 30: what was before is no part of it.
    expect(minutesOf(planned(0), planned(30), signedOff(95))).toEqual([65]);
  });

  it('count no closing, no run that was given up, and no second signature', () => {
    expect(minutesOf(planned(0), signedOff(80), planned(700, 700, 'closing'), signedOff(760))).toEqual([80]);
    expect(minutesOf(planned(0), planned(700, 700, 'closing'), signedOff(760))).toEqual([]);
    expect(minutesOf(planned(0), signedOff(80), signedOff(90))).toEqual([80]);
    expect(minutesOf(signedOff(90))).toEqual([]);
  });

  it('say their day, and when the doors were to open', () => {
    const [morning] = morningsOf(standingFacts([planned(0), signedOff(95)]), dayOf);
    expect(morning).toMatchObject({ day: '2031-05-04', opensMs: Date.parse(at(150)) });
  });
});
