import { advise, usualPolicy, type AdviceCase, type BenchState, type CaseShot } from '@tempera/core/calibration';
import { describe, expect, it } from 'vitest';
import { checkStepOf, instructionOf, stepOf } from './benchStep.ts';

const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 };
const shot = (timeS: number, change: Partial<CaseShot> = {}): CaseShot => ({
  atMs: null,
  setting: 30,
  doseG: 18,
  yieldG: 36,
  timeS,
  firstDropS: 6,
  purgedG: null,
  fault: null,
  group: null,
  ...change,
});
const adviceAfter = (shots: CaseShot[], change: Partial<AdviceCase> = {}) =>
  advise({
    recipe,
    dial: { stepMarks: 1, finer: 'down', range: null },
    secondsPerMark: 2.5,
    retentionG: null,
    house: usualPolicy,
    since: { newBag: false, hours: 14 },
    held: null,
    remembered: null,
    trimG: 0,
    nowMs: null,
    events: [],
    shots,
    standsAt: 30,
    purgedG: 0,
    ...change,
  });

const pulled = (count: number): Pick<BenchState, 'shots' | 'lastLock'> => ({
  shots: Array.from<BenchState['shots'][number]>({ length: count }),
  lastLock: null,
});
const idle = { pull: 'none', doseWaits: false, due: false } as const;

describe('the one next thing at a bench', () => {
  const say = (advice: ReturnType<typeof adviceAfter>, shots: number, change: object = {}): string => {
    const step = stepOf({ ...idle, state: pulled(shots), advice, ...change });
    return instructionOf(step, advice, recipe, 'Stop at 34.3 g');
  };

  it('is a shot again where somebody passes the advice over', () => {
    const advice = adviceAfter([shot(20), shot(20.3)]);
    expect(say(advice, 2)).toMatch(/^Turn \d marks? finer/);
    expect(say(advice, 2, { passedOver: true })).toBe('Weigh 18.0 g and pull the same again');
  });

  it('begins with the dose', () => {
    expect(say(adviceAfter([]), 0)).toBe('Weigh 18.0 g');
  });

  it('goes from the weighed dose to the pull and the drip', () => {
    const advice = adviceAfter([]);
    expect(say(advice, 0, { doseWaits: true })).toBe('Lock in and pull the shot');
    expect(say(advice, 0, { doseWaits: true, pull: 'running' })).toBe('Stop at 34.3 g');
    expect(say(advice, 0, { doseWaits: true, pull: 'dripping' })).toBe('Let the last drops fall');
    expect(say(advice, 0, { doseWaits: true, pull: 'typing' })).toBe('Type what is in the cup');
  });

  it('calls the move, then the dose at the new mark', () => {
    const shots = [shot(21)];
    expect(say(adviceAfter(shots), 1)).toBe('Turn 2 marks finer: 30 to 28');
    const moved = adviceAfter(shots, { standsAt: 28, purgedG: 30 });
    expect(say(moved, 1)).toBe('Weigh 18.0 g');
  });

  it('asks for the missing purge before another dose', () => {
    expect(say(adviceAfter([shot(21)], { standsAt: 28, retentionG: 6 }), 1)).toMatch(/^Purge 1\d\.\d g$/);
  });

  it('asks for the same again where a repeat tells more', () => {
    expect(say(adviceAfter([shot(26, { fault: 'channel' })]), 1)).toBe('Weigh 18.0 g and pull the same again');
  });

  it('locks, and then rests until the check falls due', () => {
    expect(say(adviceAfter([shot(27.4), shot(27.4)]), 2)).toBe('Lock it at 30');
    const state = { shots: [], lastLock: {} as NonNullable<BenchState['lastLock']> };
    expect(stepOf({ ...idle, state, advice: adviceAfter([]) })).toBe('locked');
    expect(stepOf({ ...idle, state, advice: adviceAfter([]), due: true })).toBe('dose');
  });
});

describe('a bench that checks a group', () => {
  it.each([
    ['none', false, false, 'dose'],
    ['none', true, false, 'ready'],
    ['running', true, false, 'pulling'],
    ['dripping', false, false, 'dripping'],
    ['typing', false, false, 'typing'],
    ['none', false, true, 'checked'],
    ['none', true, true, 'ready'],
  ] as const)('pull %s, dose waits %s, pulled %s: %s', (pull, doseWaits, wasPulled, step) => {
    expect(checkStepOf(pull, doseWaits, wasPulled)).toBe(step);
  });

  it('sends back to the opening once a shot was pulled', () => {
    expect(instructionOf('checked', adviceAfter([]), { doseG: 18 }, '')).toBe('Go back and see what it says');
  });
});
