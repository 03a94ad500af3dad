import { MS_PER_MINUTE } from '../numbers/index.ts';

/** The room's air. */
export interface Air {
  tempC: number;
  humidityPct: number;
}

/** Air that moved by so much is news before its hour. */
const MOVED_C = 2;
const MOVED_PCT = 5;
const SOONEST_MS = 10 * MS_PER_MINUTE;
const USUALLY_MS = 60 * MS_PER_MINUTE;

/**
 * Whether what a thermo-hygrometer shows is worth a fact: once an hour, or sooner where it moved; never twice in ten minutes,
 * however often it speaks and however many tablets hear it.
 * @param told what was written down last, and when (ms since the epoch); null: nothing
 */
export function isAirNews(now: Air, told: (Air & { atMs: number }) | null, nowMs: number): boolean {
  if (!told) return true;
  const sinceMs = nowMs - told.atMs;
  if (sinceMs < SOONEST_MS) return false;
  const hasMoved =
    Math.abs(now.tempC - told.tempC) >= MOVED_C || Math.abs(now.humidityPct - told.humidityPct) >= MOVED_PCT;
  return hasMoved || sinceMs >= USUALLY_MS;
}
