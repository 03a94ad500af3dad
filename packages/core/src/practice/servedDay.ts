import { MS_PER_DAY, MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import {
  engineDefaults,
  marksFiner,
  normalisedTime,
  settingAt,
  windowMiddleS,
  habitAfterBag,
  habitAfterShot,
  type AdviceCase,
  type Habit,
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
  /** What its shots taught of how the grinder goes through its days. */
  habit: Habit | null;
}

/** Where a served day stands when somebody may look at it. */
interface DayState {
  station: DrawnStation;
  /** Timed shots so far, those of the morning included. */
  shots: readonly CaseShot[];
  events: readonly HouseEvent[];
  nowMs: number;
  setting: number;
  /** What is weighed; null: what the recipe asks for. */
  doseG: number | null;
  habit: Habit | null;
  /** Seconds that a shot truly takes now, which nobody at a bar knows. */
  trulyS: (setting: number, doseG: number) => number;
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
const FIRST_OPENING_MS = Date.UTC(2031, 4, 5, 6);

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
  known: { dayNumber: number; habit: Habit | null } = { dayNumber: 0, habit: null },
): DayResult {
  const openingMs = FIRST_OPENING_MS + known.dayNumber * MS_PER_DAY;
  const live = new LiveStation(station);
  const day = drawDay(station.random, DAY_HOURS, kind);
  const believing = asServed(station, kind);
  const { recipe } = station;
  const shots = morning.map((shot, i) => ({
    ...shot,
    atMs: openingMs - (morning.length - i) * 2 * MS_PER_MINUTE,
  }));
  const events: HouseEvent[] = [];
  let { setting, doseG } = left;
  let purgeG = 0;
  let moves = 0;
  let inside = 0;
  let served = 0;
  let nowMs = openingMs;
  const follow = (turn: DayTurn): void => {
    if (turn.setting !== setting) moves += 1;
    ({ setting, doseG, purgeG } = turn);
    dueMs = nowMs + turn.nextCheckMin * MS_PER_MINUTE;
  };
  let dueMs = nowMs;
  let habit = shots.reduce((before, shot) => habitAfter(before, shot, believing), known.habit);
  const trulyS = (at: number, ofG: number): number => live.trulyS(at, ofG);
  const state = (): DayState => ({ station: believing, shots, events, nowMs, setting, doseG, habit, trulyS });
  follow(way(state()));
  const timedBefore = shots.length;

  for (; nowMs < openingMs + DAY_HOURS * MS_PER_HOUR; nowMs += SHOT_EVERY_S * 1_000) {
    const hours = (nowMs - openingMs) / MS_PER_HOUR;
    live.surroundings = day.at(hours);
    if (day.bagHours.filter((hour) => hour <= hours).length > events.length) {
      events.push({ atMs: nowMs, kind: 'newBag' });
      habit = habit && habitAfterBag(habit, false);
      follow(way(state()));
    }
    inside += Number(live.trulyInside(setting, doseG ?? recipe.doseG));
    served += 1;
    const shot = live.pull(setting, purgeG, doseG ?? recipe.doseG);
    if (nowMs >= dueMs) {
      const timed = { ...shot, atMs: nowMs };
      shots.push(timed);
      habit = habitAfter(habit, timed, believing);
      follow(way(state()));
    } else purgeG = 0;
  }
  return { insideShare: inside / served, checks: shots.length - timedBefore, moves, habit };
}

/** Doubt of the house's seconds-per-mark, as a share. */
const BELIEF_SD = 0.3;

function habitAfter(habit: Habit | null, shot: CaseShot, { recipe, dial, believed, startSetting }: DrawnStation) {
  if (shot.fault !== null || shot.atMs === null) return habit;
  const lnT = Math.log(normalisedTime(shot, recipe).normalisedS);
  const mean = (believed.secondsPerMark ?? 0) / windowMiddleS(recipe.timeS);
  const x = marksFiner(dial, shot.setting, startSetting);
  const heard = { atMs: shot.atMs, lnT, x, variance: engineDefaults.shotSd ** 2 };
  return habitAfterShot(habit, heard, { mean, variance: (BELIEF_SD * mean) ** 2 });
}

const caseOf = ({ station, shots, events, nowMs, setting, doseG, habit }: DayState): AdviceCase => ({
  ...station.believed,
  held: null,
  remembered: null,
  trimG: doseG === null ? 0 : doseG - station.believed.recipe.doseG,
  nowMs,
  events,
  shots,
  standsAt: setting,
  purgedG: 0,
  habit,
});

/** The engine's advice, followed to the letter; it says itself when it wants the next shot timed. */
export const servedByEngine =
  (checkCups?: number): WayOfServing =>
  (state) => {
    const openingMs = Math.floor((state.nowMs - FIRST_OPENING_MS) / MS_PER_DAY) * MS_PER_DAY + FIRST_OPENING_MS;
    const service = {
      endsAtMs: openingMs + DAY_HOURS * MS_PER_HOUR,
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

/** Knows at every look how long a shot truly takes, and where each mark and dose would bring it; not what the day will do next. */
export const servedByAllKnowing =
  (everyMin: number): WayOfServing =>
  ({ station: { recipe, dial }, setting, trulyS }) => {
    const middle = Math.log(windowMiddleS(recipe.timeS));
    const doses = [0, ...engineDefaults.trimsG.flatMap((grams) => [grams, -grams])].map((off) => recipe.doseG + off);
    const places = Array.from({ length: 2 * ALL_KNOWING_STEPS + 1 }, (_, i) =>
      settingAt(dial, (i - ALL_KNOWING_STEPS) * dial.stepMarks, setting),
    ).flatMap((to) =>
      doses.map((doseG) => ({ setting: to, doseG, off: Math.abs(Math.log(trulyS(to, doseG)) - middle) })),
    );
    const best = places.reduce((least, one) => (one.off < least.off ? one : least));
    return {
      setting: best.setting,
      doseG: best.doseG,
      purgeG: best.setting === setting ? 0 : HAND_PURGE_G,
      nextCheckMin: everyMin,
    };
  };
const ALL_KNOWING_STEPS = 20;

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
