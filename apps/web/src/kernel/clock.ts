import { CLOCK_HEADER } from '@tempera/contract/clock';
import { MS_PER_SECOND } from '@tempera/core/numbers';

/**
 * How far this device's clock is ahead of the server's, measured by every answer: tablets have wrong clocks, and what is
 * written with one shall still be told in the right order.
 */
let measuredMs: number | null = null;

/** Differences below this are the way of the answer, not the clock. */
const LEAST_SKEW_MS = MS_PER_SECOND;

/** Takes note of the server's clock in an answer. @param askedMs and `answeredMs`: this device's clock before and after */
export function noteServerClock(headers: Headers, askedMs: number, answeredMs: number): void {
  const serverMs = Number(headers.get(CLOCK_HEADER) ?? NaN);
  if (!Number.isFinite(serverMs)) return;
  const skewMs = Math.round((askedMs + answeredMs) / 2 - serverMs);
  // What stays within the way of an answer is the same clock: facts of one device keep the order they were written in.
  if (Math.abs(skewMs - (measuredMs ?? 0)) < LEAST_SKEW_MS + (answeredMs - askedMs) / 2) measuredMs ??= 0;
  else measuredMs = skewMs;
}

/** How far this clock is ahead of the server's, ms; null before the first answer. */
export const skewMs = (): number | null => measuredMs;

/** Now, by the house's clock. */
export const houseNowMs = (): number => Date.now() - (measuredMs ?? 0);
