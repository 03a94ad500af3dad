import { addDays, businessDay, momentOf } from '../house/index.ts';
import { MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import type { Freeze } from './freshness.ts';

/** When a house's hoppers are open, by its own clock; minutes after midnight. */
export interface OpenTimes {
  timeZone: string;
  opensMin: number;
  /** Past midnight where it is not later than the opening. */
  closesMin: number;
}

const DAY_MIN = 1_440;
/** Hoppers are filled so long before the doors open. */
const FILLED_BEFORE_MIN = 60;

/**
 * Hours that a coffee has stood open: from when it was opened, while the house is at work. Overnight it lies in a closed
 * tub and hardly ages (handbook, section 6), and in the freezer not at all.
 * @param times null: nobody said when the house is open, and every hour counts
 */
export function openHours(openedAtMs: number, nowMs: number, times: OpenTimes | null, freezes: readonly Freeze[] = []) {
  const stretches = times ? atWork(openedAtMs, nowMs, times) : [{ fromMs: openedAtMs, toMs: nowMs }];
  const open = stretches.reduce((sum, { fromMs, toMs }) => {
    const frozen = freezes.reduce((off, freeze) => {
      const until = Math.min(freeze.toMs ?? nowMs, toMs);
      return off + Math.max(0, until - Math.max(freeze.fromMs, fromMs));
    }, 0);
    return sum + Math.max(0, toMs - fromMs - frozen);
  }, 0);
  return Math.max(0, open / MS_PER_HOUR);
}

/** The stretches between two moments in which the house is at work. */
function atWork(fromMs: number, toMs: number, { timeZone, opensMin, closesMin }: OpenTimes) {
  const lastMin = closesMin > opensMin ? closesMin : closesMin + DAY_MIN;
  const days: { fromMs: number; toMs: number }[] = [];
  // A day early: a bar that closes past midnight is still at work on the day before.
  let day = addDays(businessDay(fromMs, timeZone, 0), -1);
  for (let guard = 0; guard < MOST_DAYS; guard += 1, day = addDays(day, 1)) {
    const begins = momentOf(day, opensMin, timeZone) - FILLED_BEFORE_MIN * MS_PER_MINUTE;
    if (begins >= toMs) break;
    const ends = momentOf(day, opensMin, timeZone) + (lastMin - opensMin) * MS_PER_MINUTE;
    const stretch = { fromMs: Math.max(begins, fromMs), toMs: Math.min(ends, toMs) };
    if (stretch.toMs > stretch.fromMs) days.push(stretch);
  }
  return days;
}

/** A bag that is open longer than a quarter of a year is stale by any count. */
const MOST_DAYS = 100;
