import { isWithdrawn, standingOrder, type FactOf } from '@tempera/core/facts';
import type { EntityManager } from 'typeorm';
import { entryColumns } from './asEntry.ts';

/**
 * Which facts are withdrawn, where SQL must select what stands. What that means is core's: this table only remembers its
 * answer, and can be made again from the corrections.
 */

/** SQL that is true of a fact that was not withdrawn. @param fact the name that the query gives it */
export const notWithdrawn = (fact: string): string =>
  `NOT EXISTS (SELECT 1 FROM withdrawn w WHERE w.fact_id = ${fact}.id)`;

/** Asks core anew whether a fact is withdrawn, after a correction of it was written in the same transaction. */
export async function noteWithdrawn(tx: EntityManager, siteId: string, factId: string): Promise<void> {
  const corrections = await tx.query<FactOf<'correction'>[]>(
    `SELECT ${entryColumns('f')} FROM fact f WHERE f.kind = 'correction' AND f.body->>'factId' = $1`,
    [factId],
  );
  await (isWithdrawn(corrections.toSorted(standingOrder))
    ? tx.query('INSERT INTO withdrawn (fact_id, site_id) VALUES ($1, $2) ON CONFLICT DO NOTHING', [factId, siteId])
    : tx.query('DELETE FROM withdrawn WHERE fact_id = $1', [factId]));
}

/** Corrections of one fact are taken one after another, so that the last to be written sees the others. */
export async function holdFact(tx: EntityManager, factId: string): Promise<void> {
  await tx.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [factId]);
}
