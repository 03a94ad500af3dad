import type { Entry } from '@tempera/core/facts';
import type { DataSource } from 'typeorm';
import { entryColumns } from '../journal/index.ts';

/** From a moment on, and up to another, ms since the epoch; null: up to now. */
export interface Span {
  fromMs: number;
  toMs: number | null;
}

/**
 * What tells how a grinder ran in a span: its shots, doses, moves and bags, the locks in force, what happened in service, and what
 * corrects any of it, whenever that was written; without traces.
 */
export async function factsOfHistory(
  db: DataSource,
  siteId: string,
  grinderId: string,
  { fromMs, toMs }: Span,
): Promise<Entry[]> {
  return db.query<Entry[]>(
    // Each entry is taken up once: found by its id a second time, two thousand of them take twice as long.
    `WITH wanted AS MATERIALIZED (
       SELECT * FROM fact
        WHERE grinder_id = $2 AND at >= $3 AND at < $4 AND kind IN ('shot', 'dose', 'lock', 'collarMove', 'newBag')
       UNION ALL (SELECT * FROM fact WHERE grinder_id = $2 AND kind = 'lock' AND at < $3 ORDER BY at DESC LIMIT 1)
       UNION ALL SELECT * FROM fact
        WHERE site_id = $1 AND kind = 'step' AND body->>'step' IN ('happened', 'takenBack') AND at >= $3 AND at < $4)
     SELECT ${entryColumns('f')} FROM wanted f WHERE f.site_id = $1
     UNION ALL
     -- As a list: however many the planner thinks they are, each is looked up by its index.
     SELECT ${entryColumns('c')} FROM fact c
      WHERE c.kind = 'correction' AND c.body->>'factId' = ANY (ARRAY(SELECT id::text FROM wanted))`,
    [siteId, grinderId, new Date(fromMs), toMs === null ? 'infinity' : new Date(toMs)],
  );
}
