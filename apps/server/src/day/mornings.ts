import type { Session } from '@tempera/contract/team';
import { morningsOf, type Morning } from '@tempera/core/day';
import { standingFacts, type Entry } from '@tempera/core/facts';
import { addDays, businessDay, momentOf } from '@tempera/core/house';
import type { DataSource } from 'typeorm';

/** Openings of the last business days that were signed for, oldest first. */
export async function mornings(db: DataSource, { site }: Session, days: number): Promise<Morning[]> {
  const { id, timeZone, dayStartsMin } = site;
  const dayOf = (atMs: number): string => businessDay(atMs, timeZone, dayStartsMin);
  const from = momentOf(addDays(dayOf(Date.now()), 1 - days), dayStartsMin, timeZone);
  const rows = await db.query<(Omit<Entry, 'at'> & { at: Date })[]>(
    `SELECT id, kind, LEAST(at, received_at) AS at, person_id AS "personId", grinder_id AS "grinderId",
            group_id AS "groupId", body
       FROM fact
      WHERE site_id = $1 AND kind = 'step' AND at >= $2 AND body->>'step' IN ('planned', 'signedOff', 'takenBack')`,
    [id, new Date(from)],
  );
  return morningsOf(standingFacts(rows.map((row) => ({ ...row, at: row.at.toISOString() }) as Entry)), dayOf);
}
