import { MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import {
  advise,
  marksFiner,
  settingAt,
  windowMiddleS,
  type AdviceCase,
  type HouseEvent,
  type CaseShot,
} from '../calibration/index.ts';
import { LiveStation } from './closedLoop.ts';
import type { DrawnStation } from './drawnBar.ts';
import { drawDay } from './surroundings.ts';

export interface DayResult {
  /** Share of the served shots whose setting truly met the window. */
  insideShare: number;
  /** Shots that somebody timed. */
  checks: number;
  moves: number;
}

/** Where a served day stands when somebody may look at it. */
interface DayState {
  station: DrawnStation;
  /** Timed shots so far, those of the morning included. */
  shots: readonly CaseShot[];
  events: readonly HouseEvent[];
  nowMs: number;
  setting: number;
}

/** What somebody does after a timed shot, or after a bag went in. */
interface DayTurn {
  setting: number;
  doseG: number | null;
  purgeG: number;
  /** Minutes until the next shot is timed; 0: the very next one. */
  nextCheckMin: number;
}
export type WayOfServing = (state: DayState) => DayTurn;

const DAY_HOURS = 10;
const SHOT_EVERY_S = 90;
/** Any morning will do. */
const OPENING_MS = Date.UTC(2031, 4, 5, 6);

/** Serves a day from a station as it was left by the morning: a shot every 90 s, drifting air, burrs and bags. */
export function serveDay(
  station: DrawnStation,
  morning: readonly CaseShot[],
  left: { setting: number; doseG: number | null },
  way: WayOfServing,
): DayResult {
  const live = new LiveStation(station);
  const day = drawDay(station.random, DAY_HOURS);
  const { recipe } = station;
  const shots = morning.map((shot, i) => ({
    ...shot,
    atMs: OPENING_MS - (morning.length - i) * 2 * MS_PER_MINUTE,
  }));
  const events: HouseEvent[] = [];
  let { setting, doseG } = left;
  let purgeG = 0;
  let moves = 0;
  let inside = 0;
  let served = 0;
  let nowMs = OPENING_MS;
  const follow = (turn: DayTurn): void => {
    if (turn.setting !== setting) moves += 1;
    ({ setting, doseG, purgeG } = turn);
    dueMs = nowMs + turn.nextCheckMin * MS_PER_MINUTE;
  };
  let dueMs = nowMs;
  const state = (): DayState => ({ station, shots, events, nowMs, setting });
  follow(way(state()));
  const timedBefore = shots.length;

  for (; nowMs < OPENING_MS + DAY_HOURS * MS_PER_HOUR; nowMs += SHOT_EVERY_S * 1_000) {
    const hours = (nowMs - OPENING_MS) / MS_PER_HOUR;
    live.surroundings = day.at(hours);
    if (day.bagHours.filter((hour) => hour <= hours).length > events.length) {
      events.push({ atMs: nowMs, kind: 'newBag' });
      follow(way(state()));
    }
    inside += Number(live.trulyInside(setting, doseG ?? recipe.doseG));
    served += 1;
    const shot = live.pull(setting, purgeG, doseG ?? recipe.doseG);
    if (nowMs >= dueMs) {
      shots.push({ ...shot, atMs: nowMs });
      follow(way(state()));
    } else purgeG = 0;
  }
  return { insideShare: inside / served, checks: shots.length - timedBefore, moves };
}

/** The engine's advice, followed to the letter; it says itself when it wants the next shot timed. */
export const servedByEngine: WayOfServing = ({ station, shots, events, nowMs, setting }) => {
  const input: AdviceCase = {
    ...station.believed,
    held: null,
    remembered: null,
    trimG: 0,
    nowMs,
    events,
    shots,
    standsAt: setting,
    purgedG: 0,
  };
  const advice = advise(input);
  const wantsShot = advice.action === 'move' || advice.action === 'dose';
  return {
    setting: advice.setting,
    doseG: advice.doseG,
    purgeG: advice.purgeG,
    nextCheckMin: wantsShot ? 0 : advice.nextCheckMin,
  };
};

const HAND_CHECK_MIN = 30;
const HAND_PURGE_G = 20;

/** By hand: one timed shot every half hour, and the miss over seconds-per-mark. */
export const servedByHand: WayOfServing = ({ station, shots, nowMs, setting }) => {
  const stay = { setting, doseG: null, purgeG: 0, nextCheckMin: HAND_CHECK_MIN };
  const last = shots.at(-1);
  const { timeS } = station.recipe;
  if (!last || last.atMs !== nowMs || last.fault === 'channel') return stay;
  if (last.timeS >= timeS.min && last.timeS <= timeS.max) return stay;
  const missS = windowMiddleS(timeS) - last.timeS;
  const { stepMarks } = station.dial;
  const steps = Math.round(missS / (station.believed.secondsPerMark ?? 2.5) / stepMarks) || Math.sign(missS);
  const to = settingAt(station.dial, steps * stepMarks, setting);
  return { ...stay, setting: to, purgeG: marksFiner(station.dial, to, setting) === 0 ? 0 : HAND_PURGE_G };
};
