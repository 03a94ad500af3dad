import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { moment } from '../kernel/format.ts';

/** Minutes are counted so far; beyond that the clock says more. */
const COUNTED_MIN = 120;

/** "in 25 min", "now", "since 10 min", "since yesterday 06:15". */
export function dueWord(dueAtMs: number, timeZone: string, nowMs: number): string {
  const minutes = Math.round((dueAtMs - nowMs) / MS_PER_MINUTE);
  if (minutes > COUNTED_MIN) return moment(dueAtMs, timeZone, nowMs);
  if (minutes > 0) return `in ${minutes} min`;
  if (minutes === 0) return 'now';
  return `since ${minutes > -COUNTED_MIN ? `${-minutes} min` : moment(dueAtMs, timeZone, nowMs)}`;
}
