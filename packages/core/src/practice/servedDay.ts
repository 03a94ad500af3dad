import { MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import {
  engineDefaults,
  marksFiner,
  normalisedTime,
  settingAt,
  windowMiddleS,
  type AdviceCase,
  type HouseEvent,
  type CaseShot,
} from '../calibration/index.ts';
import { serve } from '../day/index.ts';
import { LiveStation } from './closedLoop.ts';
import type { DrawnStation } from './drawnBar.ts';
import { drawDay, usualDay, type DayKind } from './surroundings.ts';

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

/** The station as the house believes it in service: what it says of a mark may be wrong by more than in the morning. */
function asServed(station: DrawnStation, { responseWrongBy }: DayKind): DrawnStation {
  const { secondsPerMark } = station.believed;
  if (responseWrongBy === 1 || secondsPerMark === null) return station;
  const times = station.random() < 0.5 ? responseWrongBy : 1 / responseWrongBy;
  return { ...station, believed: { ...station.believed, secondsPerMark: secondsPerMark * times } };
}

/** Serves a day from a station as it was left by the morning: a shot every 90 s, drifting air, burrs and bags. */
export function serveDay(
  station: DrawnStation,
  morning: readonly CaseShot[],
  left: { setting: number; doseG: number | null },
  way: WayOfServing,
  kind: DayKind = usualDay,
): DayResult {
  const live = new LiveStation(station);
  const day = drawDay(station.random, DAY_HOURS, kind);
  const believing = asServed(station, kind);
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
  const state = (): DayState => ({ station: believing, shots, events, nowMs, setting });
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

const caseOf = ({ station, shots, events, nowMs, setting }: DayState): AdviceCase => ({
  ...station.believed,
  held: null,
  remembered: null,
  trimG: 0,
  nowMs,
  events,
  shots,
  standsAt: setting,
  purgedG: 0,
});

/** The engine's advice, followed to the letter; it says itself when it wants the next shot timed. */
export const servedByEngine =
  (checkCups?: number): WayOfServing =>
  (state) => {
    const service = {
      endsAtMs: OPENING_MS + DAY_HOURS * MS_PER_HOUR,
      cupsPerHour: 3_600 / SHOT_EVERY_S,
      ...(checkCups === undefined ? {} : { checkCups }),
    };
    const { action, setting, doseG, purgeG, nextCheckMin } = serve(caseOf(state), service);
    return { setting: action === 'move' ? setting : state.setting, doseG, purgeG, nextCheckMin };
  };

/** One state and nothing else: a level that walks, heard by its shots, and the mark nearest the middle after each of them. */
export const servedByOneState =
  (everyMin: number): WayOfServing =>
  ({ station, shots, nowMs, setting }) => {
    const { recipe, dial } = station;
    const middle = Math.log(windowMiddleS(recipe.timeS));
    const response = (station.believed.secondsPerMark ?? 2.5) / windowMiddleS(recipe.timeS);
    const d = engineDefaults;
    let [level, variance, lastMs] = [middle, d.levelSdNever ** 2, shots[0]?.atMs ?? nowMs];
    for (const shot of shots) {
      if (shot.fault !== null) continue;
      variance += (d.driftSdPerRootHour ** 2 * ((shot.atMs ?? nowMs) - lastMs)) / MS_PER_HOUR;
      lastMs = shot.atMs ?? nowMs;
      const at =
        Math.log(normalisedTime(shot, recipe).normalisedS) - response * marksFiner(dial, shot.setting, setting);
      const gain = variance / (variance + d.shotSd ** 2);
      level += gain * (at - level);
      variance *= 1 - gain;
    }
    const steps = Math.round((middle - level) / response / dial.stepMarks);
    const to = settingAt(dial, steps * dial.stepMarks, setting);
    return { setting: to, doseG: null, purgeG: steps === 0 ? 0 : HAND_PURGE_G, nextCheckMin: everyMin };
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
