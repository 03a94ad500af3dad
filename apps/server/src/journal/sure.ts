import type { DataSource } from 'typeorm';

/** Facts get their place in the order before they are committed: a lower one may appear after a higher one. */

/** Any number will do, as long as writers and readers use the same. */
const WRITING_LOCK = 7_316_403;

/** SQL that lets a reader know that a fact of this café is being written, until it is committed. @param siteId its column */
export const whileWriting = (siteId: string): string =>
  `pg_advisory_xact_lock_shared(${WRITING_LOCK}, hashtext(${siteId}::text))`;

const TRIES = 20;
const RETRY_MS = 5;

/**
 * The highest place up to which every fact of the café is committed and can be read; null while writers never pause.
 * Waits a moment for what is being written, and holds writers up for no longer than it takes to look.
 */
export async function sureSeq(db: DataSource, siteId: string): Promise<number | null> {
  for (let tried = 0; tried < TRIES; tried += 1) {
    const seq = await db.transaction(async (tx) => {
      const [lock] = await tx.query<{ held: boolean }[]>(
        'SELECT pg_try_advisory_xact_lock($1, hashtext($2::text)) AS held',
        [WRITING_LOCK, siteId],
      );
      if (!lock?.held) return null;
      const [last] = await tx.query<{ seq: string | null }[]>(
        'SELECT seq FROM fact WHERE site_id = $1 ORDER BY seq DESC LIMIT 1',
        [siteId],
      );
      return Number(last?.seq ?? 0);
    });
    if (seq !== null) return seq;
    await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
  }
  return null;
}
