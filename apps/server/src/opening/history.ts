import { MS_PER_WEEK } from '@tempera/core/numbers';
import type { OpeningHistory } from '@tempera/contract/opening';
import { jobHistory } from '@tempera/core/opening';
import { standingFacts } from '@tempera/core/facts';
import type { DataSource } from 'typeorm';
import { stepsSince } from '../journal/index.ts';

/** Older mornings say little about today's hands. */
const WEEKS = 6;

/** How long each kind of job took on the mornings of the last weeks. */
export async function openingHistory(db: DataSource, siteId: string, nowMs = Date.now()): Promise<OpeningHistory> {
  const sinceMs = nowMs - WEEKS * MS_PER_WEEK;
  const [steps, shots] = await Promise.all([
    stepsSince(db, siteId, sinceMs),
    db.query<{ grinderId: string; atMs: number[] }[]>(
      `SELECT grinder_id AS "grinderId", array_agg(extract(epoch FROM at)::float8 * 1000 ORDER BY at) AS "atMs" FROM fact
        WHERE site_id = $1 AND kind = 'shot' AND at >= $2 GROUP BY grinder_id`,
      [siteId, new Date(sinceMs)],
    ),
  ]);
  const history = jobHistory(standingFacts(steps), new Map(shots.map(({ grinderId, atMs }) => [grinderId, atMs])));
  return { minutes: Object.fromEntries(Object.entries(history).map(([kind, minutes]) => [kind, [...minutes]])) };
}
