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
    `WITH wanted AS (
       SELECT id FROM fact
        WHERE grinder_id = $2 AND at >= $3 AND at < $4 AND kind IN ('shot', 'dose', 'lock', 'collarMove', 'newBag')
       UNION ALL (SELECT id FROM fact WHERE grinder_id = $2 AND kind = 'lock' AND at < $3 ORDER BY at DESC LIMIT 1)
       UNION ALL SELECT id FROM fact
        WHERE site_id = $1 AND kind = 'step' AND body->>'step' IN ('happened', 'takenBack') AND at >= $3 AND at < $4)
     SELECT ${entryColumns('f')} FROM fact f
      -- As lists: however many the planner thinks they are, each is looked up by its index.
      WHERE f.site_id = $1
        AND f.id = ANY (ARRAY(SELECT id FROM wanted)
                      || ARRAY(SELECT c.id FROM fact c WHERE c.kind = 'correction'
                                  AND c.body->>'factId' = ANY (ARRAY(SELECT id::text FROM wanted))))`,
    [siteId, grinderId, new Date(fromMs), toMs === null ? 'infinity' : new Date(toMs)],
  );
}
