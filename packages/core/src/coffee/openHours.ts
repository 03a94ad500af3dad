import { addDays, businessDay, openSpan, type Calendar } from '../house/index.ts';
import { MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import type { Freeze } from './freshness.ts';

/** Hoppers are filled so long before the doors open. */
const FILLED_BEFORE_MIN = 60;

/**
 * Hours that a coffee has stood open: from when it was opened, while the house is at work. Overnight it lies in a closed
 * tub and hardly ages (handbook, section 6), and in the freezer not at all.
 * @param calendar null: nobody said when the house is open, and every hour counts
 */
export function openHours(
  openedAtMs: number,
  nowMs: number,
  calendar: Calendar | null,
  freezes: readonly Freeze[] = [],
) {
  const stretches = calendar ? atWork(openedAtMs, nowMs, calendar) : [{ fromMs: openedAtMs, toMs: nowMs }];
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
function atWork(fromMs: number, toMs: number, calendar: Calendar) {
  const stretches: { fromMs: number; toMs: number }[] = [];
  // A day early: a bar that closes past midnight is still at work on the day before.
  const { timeZone, dayStartsMin } = calendar;
  let day = addDays(businessDay(fromMs, timeZone, dayStartsMin), -1);
  const last = businessDay(toMs, timeZone, dayStartsMin);
  for (let guard = 0; guard < MOST_DAYS && day <= last; guard += 1, day = addDays(day, 1)) {
    const span = openSpan(calendar, day);
    if (!span) continue;
    const begins = span.opensMs - FILLED_BEFORE_MIN * MS_PER_MINUTE;
    const stretch = { fromMs: Math.max(begins, fromMs), toMs: Math.min(span.closesMs, toMs) };
    if (stretch.toMs > stretch.fromMs) stretches.push(stretch);
  }
  return stretches;
}

/** A bag that is open longer than a quarter of a year is stale by any count. */
const MOST_DAYS = 100;
