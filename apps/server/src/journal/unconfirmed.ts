import type { NewEntry } from '@tempera/contract/journal';
import type { DataSource, EntityManager } from 'typeorm';

/** A tablet told it by its author's name alone. */
export async function noteTold(tx: EntityManager, fact: NewEntry, deviceId: string): Promise<void> {
  await tx.query('INSERT INTO told_by_name (fact_id, site_id, device_id) VALUES ($1, $2, $3)', [
    fact.id,
    fact.siteId,
    deviceId,
  ]);
}

/** The author gave their PIN, and the same entry came under their session. */
export async function confirm(tx: EntityManager, factId: string): Promise<void> {
  await tx.query('UPDATE told_by_name SET confirmed_at = now() WHERE fact_id = $1 AND confirmed_at IS NULL', [factId]);
}

/** Which of these entries nobody has confirmed yet, and the tablet that told each. */
export async function unconfirmedAmong(
  db: DataSource,
  factIds: readonly string[],
): Promise<{ factId: string; tablet: string }[]> {
  if (factIds.length === 0) return [];
  return db.query<{ factId: string; tablet: string }[]>(
    `SELECT t.fact_id AS "factId", d.name AS tablet FROM told_by_name t JOIN device d ON d.id = t.device_id
      WHERE t.fact_id = ANY($1) AND t.confirmed_at IS NULL`,
    [factIds],
  );
}
