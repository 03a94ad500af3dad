import { usualPolicy, type AdviceCase, type CaseShot } from './adviceCase.ts';

/** The one way to make a shot and a case in tests: a house double on a stepped grinder that counts down to finer. */

export function aShot(shot: Partial<CaseShot> = {}): CaseShot {
  return {
    atMs: null,
    setting: 30,
    doseG: 18,
    yieldG: 36,
    timeS: 27,
    firstDropS: 6,
    purgedG: null,
    fault: null,
    group: null,
    ...shot,
  };
}

export function aCase(change: Partial<AdviceCase> = {}): AdviceCase {
  return {
    recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 },
    dial: { stepMarks: 1, finer: 'down', range: { min: 1, max: 60 } },
    secondsPerMark: 2.5,
    retentionG: null,
    house: usualPolicy,
    since: { newBag: false, hours: 14 },
    held: null,
    remembered: null,
    trimG: 0,
    nowMs: null,
    events: [],
    shots: [],
    standsAt: null,
    purgedG: 0,
    ...change,
  };
}

/** Even draws in [0, 1) for tests of the engine, which may not borrow the simulated bar's (Park and Miller 1988). */
export function pseudoRandom(seed: number): () => number {
  const MODULUS = 2_147_483_647;
  let state = seed % MODULUS;
  return () => {
    state = (state * 48_271) % MODULUS;
    return state / MODULUS;
  };
}
