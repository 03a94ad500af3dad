import {
  advise,
  marksFiner,
  purgeAdviceG,
  settingAt,
  windowMiddleS,
  type Advice,
  type Dial,
  type CaseShot,
} from '../calibration/index.ts';
import type { Turn, WayOfWorking } from './closedLoop.ts';

const plain = (action: Turn['action'], setting: number, purgeG = 0): Turn => ({
  action,
  setting,
  purgeG,
  doseG: null,
  expects: null,
});

/** The engine's own advice, followed to the letter. */
export const byEngine: WayOfWorking = (input) => turnOf(advise(input));

/** An advice as somebody follows it who stops where nothing in reach does better, and writes down how sure it is. */
export function turnOf({ action, setting, purgeG, doseG, predicted, closeEnough }: Advice): Turn {
  const follows = action === 'dose' ? 'repeat' : action;
  return { action: closeEnough === null ? follows : 'lock', setting, purgeG, doseG, expects: predicted };
}

const HAND_PURGE_G = 20;
const REPEATS = 2;
const BELIEVED_SECONDS_PER_MARK = 2.5;

/** Marks in whole steps of the collar, at least one step in the direction of the miss. */
function stepsFor(missS: number, secondsPerMark: number | null, { stepMarks }: Dial): number {
  const steps = Math.round(missS / (secondsPerMark ?? BELIEVED_SECONDS_PER_MARK) / stepMarks);
  return (steps === 0 ? Math.sign(missS) : steps) * stepMarks;
}

/**
 * As many work by hand: the miss over seconds-per-mark, half the last move back after an overshoot, and two repeats
 * inside before it counts.
 */
export const byRuleOfThumb: WayOfWorking = ({ shots, recipe: { timeS }, dial, secondsPerMark }, { startSetting }) => {
  const last = shots[shots.length - 1];
  if (!last) return plain('repeat', startSetting);
  if (last.fault === 'channel') return plain('repeat', last.setting);
  const inside = (shot: CaseShot): boolean => shot.fault === null && shot.timeS >= timeS.min && shot.timeS <= timeS.max;
  if (inside(last)) {
    const run = shots.slice(-1 - REPEATS);
    const proven = run.length > REPEATS && run.every((shot) => shot.setting === last.setting && inside(shot));
    return plain(proven ? 'lock' : 'repeat', last.setting);
  }
  const before = shots.findLast((shot) => shot.setting !== last.setting);
  const missS = windowMiddleS(timeS) - last.timeS;
  const lastMove = before ? marksFiner(dial, last.setting, before.setting) : 0;
  const overshot = lastMove !== 0 && Math.sign(missS) === -Math.sign(lastMove);
  const halfBack = (-Math.round(lastMove / 2 / dial.stepMarks) || Math.sign(missS)) * dial.stepMarks;
  const marks = overshot ? halfBack : stepsFor(missS, secondsPerMark, dial);
  return plain('move', settingAt(dial, marks, last.setting), HAND_PURGE_G);
};

/** The careful way by hand: three shots at each setting, and the miss of their mean. */
export const byMeanOfThree: WayOfWorking = ({ shots, recipe: { timeS }, dial, secondsPerMark }, { startSetting }) => {
  const last = shots[shots.length - 1];
  if (!last) return plain('repeat', startSetting);
  const since = shots.findLastIndex((shot) => shot.setting !== last.setting) + 1;
  const sound = shots.slice(since).filter((shot) => shot.fault !== 'channel');
  if (sound.length < 3) return plain('repeat', last.setting);
  const meanS = sound.reduce((sum, shot) => sum + shot.timeS, 0) / sound.length;
  if (meanS >= timeS.min && meanS <= timeS.max) return plain('lock', last.setting);
  const marks = stepsFor(windowMiddleS(timeS) - meanS, secondsPerMark, dial);
  return plain('move', settingAt(dial, marks, last.setting), HAND_PURGE_G);
};

/** The bound: it knows what is true, goes to the best mark after the first shot, and locks there after one more. */
export const byAllKnowing: WayOfWorking = ({ shots, dial, recipe: { doseG } }, station) => {
  const setting = shots[shots.length - 1]?.setting ?? station.startSetting;
  const off = (at: number): number => Math.abs(station.lnResistanceAt(at));
  let best = setting;
  for (let steps = -150; steps <= 150; steps += 1) {
    const candidate = settingAt(dial, steps * dial.stepMarks, station.startSetting);
    if (off(candidate) < off(best)) best = candidate;
  }
  if (best === setting) return plain('lock', setting);
  return plain('move', best, purgeAdviceG(doseG, station.retentionG));
};
