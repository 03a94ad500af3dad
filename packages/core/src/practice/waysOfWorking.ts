import { advise, marksFiner, purgeAdviceG, settingAt, windowMiddleS, type HeardShot } from '../calibration/index.ts';
import { START, type WayOfWorking } from './closedLoop.ts';

/** The engine's own advice, followed to the letter. */
export const byEngine: WayOfWorking = (input) => {
  const { action, setting, purgeG } = advise(input);
  return { action: action === 'dose' ? 'repeat' : action, setting, purgeG };
};

const HAND_PURGE_G = 20;
const REPEATS = 2;

/**
 * As many work by hand: the miss over seconds-per-mark, half the last move back after an overshoot, and two repeats
 * inside before it counts.
 */
export const byRuleOfThumb: WayOfWorking = ({ shots, recipe: { timeS }, dial: itsDial, secondsPerMark }) => {
  const last = shots[shots.length - 1];
  if (!last) return { action: 'repeat', setting: START, purgeG: 0 };
  if (last.fault === 'channel') return { action: 'repeat', setting: last.setting, purgeG: 0 };
  const inside = (shot: HeardShot): boolean =>
    shot.fault === null && shot.timeS >= timeS.min && shot.timeS <= timeS.max;
  if (inside(last)) {
    const run = shots.slice(-1 - REPEATS);
    const proven = run.length > REPEATS && run.every((shot) => shot.setting === last.setting && inside(shot));
    return { action: proven ? 'lock' : 'repeat', setting: last.setting, purgeG: 0 };
  }
  const before = shots.findLast((shot) => shot.setting !== last.setting);
  const missS = windowMiddleS(timeS) - last.timeS;
  const lastMove = before ? marksFiner(itsDial, last.setting, before.setting) : 0;
  const byMiss = Math.round(missS / (secondsPerMark ?? 2.5));
  const overshot = lastMove !== 0 && Math.sign(missS) === -Math.sign(lastMove);
  const marks = overshot ? -Math.round(lastMove / 2) : byMiss;
  const atLeastOne = marks === 0 ? Math.sign(missS) : marks;
  return { action: 'move', setting: settingAt(itsDial, atLeastOne, last.setting), purgeG: HAND_PURGE_G };
};

/** The careful way by hand: three shots at each setting, and the miss of their mean. */
export const byMeanOfThree: WayOfWorking = ({ shots, recipe: { timeS }, dial: itsDial, secondsPerMark }) => {
  const last = shots[shots.length - 1];
  if (!last) return { action: 'repeat', setting: START, purgeG: 0 };
  const since = shots.findLastIndex((shot) => shot.setting !== last.setting) + 1;
  const sound = shots.slice(since).filter((shot) => shot.fault !== 'channel');
  if (sound.length < 3) return { action: 'repeat', setting: last.setting, purgeG: 0 };
  const meanS = sound.reduce((sum, shot) => sum + shot.timeS, 0) / sound.length;
  if (meanS >= timeS.min && meanS <= timeS.max) return { action: 'lock', setting: last.setting, purgeG: 0 };
  const missS = windowMiddleS(timeS) - meanS;
  const marks = Math.round(missS / (secondsPerMark ?? 2.5)) || Math.sign(missS);
  return { action: 'move', setting: settingAt(itsDial, marks, last.setting), purgeG: HAND_PURGE_G };
};

/** The bound: it knows what is true, goes to the best mark after the first shot, and locks there after one more. */
export const byAllKnowing: WayOfWorking = ({ shots, dial: itsDial, recipe: { doseG } }, morning) => {
  const last = shots[shots.length - 1];
  const setting = last?.setting ?? START;
  const off = (at: number): number => Math.abs(morning.lnResistanceAt(at));
  let best = setting;
  for (let marks = -30; marks <= 30; marks += 1) {
    const candidate = settingAt(itsDial, marks, START);
    if (off(candidate) < off(best)) best = candidate;
  }
  if (best === setting) return { action: 'lock', setting, purgeG: 0 };
  return { action: 'move', setting: best, purgeG: purgeAdviceG(doseG, morning.retentionG) };
};
