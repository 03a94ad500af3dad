import { MS_PER_HOUR } from '../numbers/index.ts';

/** A bag that went into a hopper. */
export interface HopperBag {
  grinderId: string;
  atMs: number;
  weightG: number;
}

/** A span of a business day. */
export interface OpenDay {
  day: string;
  fromMs: number;
  toMs: number;
}

export interface DayGrams {
  day: string;
  grinderId: string;
  grams: number;
}

/** What was left of a bag when its hopper was emptied into a tub and weighed. */
export interface TubWeighed {
  grinderId: string;
  atMs: number;
  leftG: number;
}

/** Grams that went through a hopper between two moments; `toMs` null: since then, at the pace of what is known. */
interface Stretch {
  fromMs: number;
  toMs: number | null;
  grams: number;
}

interface HopperTold {
  grinderId: string;
  stretches: Stretch[];
  /** Grams a millisecond of open hours, by what has gone through; 0 where nothing has yet. */
  pace: number;
}

/** What one bag's going in, its weighed tubs and the next bag tell of it. */
function stretchesOf(bag: HopperBag, tubs: readonly TubWeighed[], untilMs: number | null): Stretch[] {
  const own = tubs.filter(({ atMs }) => atMs > bag.atMs && atMs < (untilMs ?? Infinity));
  // A tub that holds more than was left says that something was poured in: what went through before it is not known.
  const marks = [{ atMs: bag.atMs, leftG: bag.weightG }, ...own];
  return marks.flatMap(({ atMs, leftG }, i): Stretch[] => {
    const next = marks[i + 1];
    if (next) return leftG > next.leftG ? [{ fromMs: atMs, toMs: next.atMs, grams: leftG - next.leftG }] : [];
    return [{ fromMs: atMs, toMs: untilMs, grams: leftG }];
  });
}

const openMs = (days: readonly OpenDay[], { fromMs, toMs }: Stretch): number =>
  days.reduce((sum, day) => sum + overlap(day.fromMs, day.toMs, fromMs, toMs ?? Infinity), 0);

/** The pace is that of so many bags: mornings are busier than afternoons, and one bag may have seen only one of them. */
const BAGS_OF_PACE = 6;

function hoppersTold(bags: readonly HopperBag[], days: readonly OpenDay[], tubs: readonly TubWeighed[]): HopperTold[] {
  const grinders = [...new Set(bags.map(({ grinderId }) => grinderId))];
  return grinders.map((grinderId) => {
    const own = bags.filter((bag) => bag.grinderId === grinderId).toSorted((a, b) => a.atMs - b.atMs);
    const weighed = tubs.filter((tub) => tub.grinderId === grinderId).toSorted((a, b) => a.atMs - b.atMs);
    const byBag = own.map((bag, i) => stretchesOf(bag, weighed, own[i + 1]?.atMs ?? null));
    const lately = byBag
      .slice(-BAGS_OF_PACE)
      .flat()
      .flatMap((stretch) => {
        const ms = stretch.toMs === null ? 0 : openMs(days, stretch);
        return ms > 0 ? [{ ms, grams: stretch.grams }] : [];
      });
    const ms = lately.reduce((sum, stretch) => sum + stretch.ms, 0);
    const pace = ms > 0 ? lately.reduce((sum, { grams }) => sum + grams, 0) / ms : 0;
    return { grinderId, stretches: byBag.flat(), pace };
  });
}

/**
 * Grams that went through each hopper on each day. Nobody weighs what is served; but when the next bag goes in, the one
 * before it has gone through, and a hopper that is weighed at closing says how much of it has: evenly over the open hours
 * between. What is in now is taken to go at the pace of the last few; a first bag, of which nothing is known, counts for nothing.
 * @param days business days in order, with their open hours
 * @param tubs hoppers weighed at closing
 */
export function throughputByDay(
  bags: readonly HopperBag[],
  days: readonly OpenDay[],
  tubs: readonly TubWeighed[] = [],
): DayGrams[] {
  return hoppersTold(bags, days, tubs).flatMap(({ grinderId, stretches, pace }) => {
    const perDay = new Map<string, number>();
    for (const stretch of stretches) {
      const ms = openMs(days, stretch);
      if (ms === 0) continue;
      const rate = stretch.toMs === null ? Math.min(pace, stretch.grams / ms) : stretch.grams / ms;
      for (const { day, fromMs, toMs } of days) {
        const inDay = overlap(fromMs, toMs, stretch.fromMs, stretch.toMs ?? Infinity);
        if (inDay * rate > 0) perDay.set(day, (perDay.get(day) ?? 0) + rate * inDay);
      }
    }
    return [...perDay].map(([day, grams]) => ({ day, grinderId, grams }));
  });
}

/** What should be left in a hopper by now. */
export interface HopperLeft {
  grinderId: string;
  leftG: number;
  /** When it was last weighed; null: reckoned from its bag. */
  weighedAtMs: number | null;
  /** Grams of an hour in which the house is open. */
  paceGPerHour: number;
}

/** What should be left in each hopper: its bag, or its last weighed tub, less the pace of the open hours since. */
export function hoppersLeft(
  bags: readonly HopperBag[],
  days: readonly OpenDay[],
  tubs: readonly TubWeighed[] = [],
): HopperLeft[] {
  return hoppersTold(bags, days, tubs).flatMap(({ grinderId, stretches, pace }) => {
    const last = stretches.at(-1);
    if (!last) return [];
    const leftG = Math.max(0, last.grams - pace * openMs(days, last));
    const weighed = tubs.findLast((tub) => tub.grinderId === grinderId && tub.atMs === last.fromMs);
    return [{ grinderId, leftG, weighedAtMs: weighed?.atMs ?? null, paceGPerHour: pace * MS_PER_HOUR }];
  });
}

const overlap = (a: number, b: number, c: number, d: number): number => Math.max(0, Math.min(b, d) - Math.max(a, c));
