import type { Session } from '@tempera/contract/team';
import { morningsOf, type Morning } from '@tempera/core/day';
import { standingFacts, type Entry } from '@tempera/core/facts';
import { addDays, businessDay, momentOf } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { entryColumns } from '../journal/index.ts';

/** Openings of the last business days that were signed for, oldest first. */
export async function mornings(db: DataSource, { site }: Session, days: number): Promise<Morning[]> {
  const { id, timeZone, dayStartsMin } = site;
  const dayOf = (atMs: number): string => businessDay(atMs, timeZone, dayStartsMin);
  const from = momentOf(addDays(dayOf(Date.now()), 1 - days), dayStartsMin, timeZone);
  const rows = await db.query<Entry[]>(
    `SELECT ${entryColumns('f')} FROM fact f
      WHERE f.site_id = $1 AND f.kind = 'step' AND f.at >= $2
        AND f.body->>'step' IN ('planned', 'signedOff', 'takenBack')`,
    [id, new Date(from)],
  );
  return morningsOf(standingFacts(rows), dayOf);
}
