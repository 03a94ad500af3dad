import type { Entry } from './standing.ts';

/** What one tap writes comes in one go. */
const ONE_TAP_MS = 1_000;

/** Whether the later of two entries was written by the tap that wrote the earlier one. */
export const isOfOneTap = (earlier: Pick<Entry, 'at'>, later: Pick<Entry, 'at'>): boolean =>
  Date.parse(later.at) - Date.parse(earlier.at) < ONE_TAP_MS;
