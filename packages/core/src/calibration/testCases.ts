import type { AdviceCase, HeardShot } from './adviceCase.ts';

/** The one way to make a shot and a case in tests: a house double on a stepped grinder that counts down to finer. */

export function aShot(shot: Partial<HeardShot> = {}): HeardShot {
  return {
    atMs: null,
    setting: 30,
    doseG: 18,
    yieldG: 36,
    timeS: 27,
    firstDropS: 6,
    purgedG: null,
    fault: null,
    ...shot,
  };
}

export function aCase(change: Partial<AdviceCase> = {}): AdviceCase {
  return {
    recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 },
    dial: { stepMarks: 1, finer: 'down', range: { min: 1, max: 60 } },
    secondsPerMark: 2.5,
    retentionG: null,
    house: { sureness: 0.9, risk: 0.2 },
    since: { newBag: false, hours: 14 },
    held: null,
    nowMs: null,
    events: [],
    shots: [],
    standsAt: null,
    purgedG: 0,
    ...change,
  };
}
