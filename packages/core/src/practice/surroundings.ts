import { gaussian, MS_PER_HOUR, type Random, seededRandom, seedFrom } from '../numbers/index.ts';

/**
 * How the bed's resistance wanders on its own at a moment: humid air by the hour, the coffee's age by the day.
 * A smooth, seeded function of time, so that every device sees the same weather.
 * @returns an addition to ln of resistance, sd about 0.05
 */
export function weather(seed: string, atMs: number): number {
  const random = seededRandom(seedFrom(`weather ${seed}`));
  const periodsH = [7, 23, 61, 167];
  return periodsH.reduce((sum, periodH) => {
    const phase = 2 * Math.PI * random();
    return sum + 0.035 * Math.sin((2 * Math.PI * atMs) / (periodH * MS_PER_HOUR) + phase);
  }, 0);
}

/** A day behind the counter as the coffee feels it: what is added to ln of resistance at each hour. */
export interface DrawnDay {
  /** Addition at `hours` after opening. */
  at(hours: number): number;
  /** Hours at which another bag goes into the hopper. */
  bagHours: readonly number[];
}

/** Air: an open kitchen's humidity moves by some 10 points in a few hours, and 1 point is worth about 0.4 % of the time. */
const AIR_SD_PER_ROOT_HOUR = { least: 0.01, range: 0.02 };
const AIR_CALMS_PER_HOUR = 0.15;
/** Burrs: ten degrees warmer after a rush open the bed by a few percent, with half an hour's lag. */
const BURR_SWING = 0.03;
const BURR_LAG_H = 0.5;
/** A grinder that was cold in the morning is warm through by noon. */
const WARMING_H = 1.5;
const RUSH_HOURS = [2, 5, 8];
/** Two bags of one roast differ by a few percent. */
const BAG_SD = 0.04;
const BAGS_A_DAY = 3;
const GRID_H = 0.05;

/** How restless a day is. */
export interface DayKind {
  /** Of the usual walk of the air. */
  walkTimes: number;
  /** What burrs that warm up over the first hours add, beside each rush, ln. */
  warming: number;
  bagSd: number;
  /** From the driest hour of the day to the dampest, ln. */
  humiditySwing: number;
  /** By how much the house's word on a mark is wrong, either way; 1: as it was drawn. */
  responseWrongBy: number;
}

export const usualDay: DayKind = { walkTimes: 1, warming: 0, bagSd: BAG_SD, humiditySwing: 0, responseWrongBy: 1 };
/** Ovens at the bar's back, bags of any roast, and a collar that nobody has measured. */
export const hardDay: DayKind = { walkTimes: 2, warming: 0.08, bagSd: 0.1, humiditySwing: 0.1, responseWrongBy: 1.5 };

/** Draws a day of `hours`: air that wanders, burrs that warm in each rush, a few bags. */
export function drawDay(random: Random, hours: number, kind: DayKind = usualDay): DrawnDay {
  const airSd = (AIR_SD_PER_ROOT_HOUR.least + AIR_SD_PER_ROOT_HOUR.range * random()) * kind.walkTimes;
  const burrSwing = BURR_SWING * gaussian(random);
  const bagHours = Array.from({ length: BAGS_A_DAY - 1 }, () => hours * random()).sort((a, b) => a - b);
  const bagEffects = bagHours.map(() => kind.bagSd * gaussian(random));
  const drift: number[] = [0];
  let air = 0;
  let burrs = 0;
  for (let hour = GRID_H; hour <= hours + GRID_H; hour += GRID_H) {
    air += -AIR_CALMS_PER_HOUR * air * GRID_H + airSd * Math.sqrt(GRID_H) * gaussian(random);
    const rush = RUSH_HOURS.some((at) => Math.abs(hour - at) < 0.75) ? 1 : 0;
    burrs += ((rush - burrs) * GRID_H) / BURR_LAG_H;
    const warmth = kind.warming * (1 - Math.exp(-hour / WARMING_H));
    const damp = (kind.humiditySwing / 2) * Math.sin((2 * Math.PI * hour) / hours);
    drift.push(air + burrSwing * burrs + warmth + damp);
  }
  return {
    bagHours,
    at: (hour) => {
      const cell = Math.min(drift.length - 2, Math.max(0, Math.floor(hour / GRID_H)));
      const share = hour / GRID_H - cell;
      const wandered = (drift[cell] ?? 0) * (1 - share) + (drift[cell + 1] ?? 0) * share;
      return bagHours.reduce((sum, bagHour, i) => sum + (hour >= bagHour ? (bagEffects[i] ?? 0) : 0), wandered);
    },
  };
}
