import { advise, usualPolicy } from '@tempera/core/calibration';
import { describe, expect, it } from 'vitest';
import {
  ranOver,
  benchAfter,
  benchScreen,
  FORGOTTEN_S,
  idleHands,
  type BenchEvent,
  type BenchHands,
  type BenchSeen,
  type PullInHand,
} from './benchMoves.ts';

const full: BenchHands = {
  dialog: 'why',
  editingId: 'shot',
  weighsAgain: true,
  passedOverAt: 2,
  enters: true,
  asksAfterS: 240,
};

describe('what a device holds of the round, event by event', () => {
  it.each<[BenchEvent, Partial<BenchHands>, Partial<BenchHands>]>([
    [{ kind: 'opened', dialog: 'turn' }, {}, { dialog: 'turn' }],
    [{ kind: 'opened', dialog: 'bag' }, { editingId: 'shot' }, { dialog: 'bag', editingId: null }],
    [{ kind: 'edits', shotId: 'a' }, { dialog: 'why' }, { dialog: null, editingId: 'a' }],
    [{ kind: 'closed' }, { dialog: 'look', editingId: 'a' }, { dialog: null, editingId: null }],
    [{ kind: 'weighsAgain' }, {}, { weighsAgain: true }],
    [{ kind: 'doseKept' }, { weighsAgain: true }, { weighsAgain: false }],
    [{ kind: 'passedOver', shots: 3 }, { dialog: 'turn' }, { passedOverAt: 3, dialog: null }],
    [{ kind: 'enters' }, { dialog: 'turn' }, { enters: true, dialog: null }],
    [{ kind: 'pullStarted' }, full, idleHands],
    [{ kind: 'pullEnded' }, full, idleHands],
    [{ kind: 'runsOn', elapsedS: 130 }, {}, { asksAfterS: 130 + FORGOTTEN_S }],
  ])('%o after %o leaves %o', (event, before, after) => {
    expect(benchAfter({ ...idleHands, ...before }, event)).toEqual({ ...idleHands, ...before, ...after });
  });

  it('never touches what was there', () => {
    const before = Object.freeze({ ...full });
    for (const kind of ['closed', 'weighsAgain', 'doseKept', 'enters', 'pullEnded'] as const) {
      expect(() => benchAfter(before, { kind })).not.toThrow();
    }
  });
});

describe('a pull that was left running', () => {
  it('is water by its end, and no shot; a gush and a slow filter coffee are shots', () => {
    expect(ranOver({ timeS: 141, yieldG: 381.7 }, 34)).toBe(true);
    expect(ranOver({ timeS: 28, yieldG: 110 }, 34)).toBe(false);
    expect(ranOver({ timeS: 150, yieldG: 240 }, 220)).toBe(false);
  });
});

describe('where the bench stands', () => {
  const advice = advise({
    recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 },
    dial: { stepMarks: 1, finer: 'down', range: null },
    secondsPerMark: 2.5,
    retentionG: null,
    house: usualPolicy,
    since: null,
    held: null,
    remembered: null,
    trimG: 0,
    nowMs: null,
    events: [],
    shots: [],
    standsAt: 30,
    purgedG: 0,
  });
  const seen = (change: Partial<BenchSeen> = {}): BenchSeen => ({
    pull: null,
    groupId: 'g1',
    timeMaxS: 30,
    doseWaits: false,
    check: null,
    state: { shots: [], lastLock: null },
    advice,
    due: false,
    ...change,
  });
  const pull = (change: Partial<PullInHand> = {}): PullInHand => ({
    groupId: 'g1',
    elapsedS: 20,
    stoppedAtS: null,
    byScale: true,
    ...change,
  });

  it.each<[string, Partial<BenchHands>, Partial<BenchSeen>, string, string]>([
    ['nothing in hand', {}, {}, 'none', 'dose'],
    ['a dose waits', {}, { doseWaits: true }, 'none', 'ready'],
    ['the dose is thrown out', { weighsAgain: true }, { doseWaits: true }, 'none', 'dose'],
    ['a pull runs', {}, { pull: pull() }, 'running', 'pulling'],
    ['it drips', {}, { pull: pull({ stoppedAtS: 27 }) }, 'dripping', 'dripping'],
    ['it is typed', {}, { pull: pull({ stoppedAtS: 27, byScale: false }) }, 'typing', 'typing'],
    ['a shot is entered', { enters: true }, {}, 'typing', 'typing'],
    ['a pull goes before an entry', { enters: true }, { pull: pull() }, 'running', 'pulling'],
    ['two minutes', {}, { pull: pull({ elapsedS: 120 }) }, 'forgotten', 'forgotten'],
    ['two minutes, said to run on', { asksAfterS: 240 }, { pull: pull({ elapsedS: 130 }) }, 'running', 'pulling'],
    ['asked again later', { asksAfterS: 240 }, { pull: pull({ elapsedS: 240 }) }, 'forgotten', 'forgotten'],
    ['a recipe that takes so long', {}, { pull: pull({ elapsedS: 130 }), timeMaxS: 100 }, 'running', 'pulling'],
    [
      'stopped long ago is not forgotten',
      {},
      { pull: pull({ elapsedS: 900, stoppedAtS: 27 }) },
      'dripping',
      'dripping',
    ],
    ['another group', {}, { groupId: 'g2', pull: pull() }, 'elsewhere', 'elsewhere'],
    ['another group, stopped', {}, { groupId: 'g2', pull: pull({ stoppedAtS: 27 }) }, 'elsewhere', 'elsewhere'],
    ['a check', {}, { check: { pulled: true } }, 'none', 'checked'],
  ])('%s', (_, hands, change, stage, step) => {
    const screen = benchScreen({ ...idleHands, ...hands }, seen(change));
    expect(screen).toMatchObject({ pull: stage, step, free: stage === 'none' });
  });
});
