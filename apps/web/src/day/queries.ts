import { call } from '../kernel/api.ts';
import type { KeptRead } from '../kernel/room.ts';

/** Six weeks show a habit. */
const DAYS = 42;

/** Openings that were signed for. */
export const morningsRead = {
  queryKey: ['day', 'mornings'],
  queryFn: () => call('GET /day/mornings', { query: { days: DAYS } }),
} satisfies KeptRead;
