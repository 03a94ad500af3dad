import type { Entry } from '@tempera/core/facts';
import type { DataSource } from 'typeorm';
import { entryColumns } from './asEntry.ts';

/**
 * SQL that is true of a step that takes another back; as the index `fact_takes_back_ix` has it, which holds a few of the many
 * steps of a house. @param fact the query's name for it
 */
export const takesBack = (fact: string): string => `${fact}.kind = 'step' AND ${fact}.body->>'step' = 'takenBack'`;

/** What corrects these facts or takes them back, whenever that was written. */
export async function undoersOf(db: DataSource, ids: readonly string[]): Promise<Entry[]> {
  if (ids.length === 0) return [];
  return db.query<Entry[]>(
    `SELECT ${entryColumns('f')} FROM fact f WHERE f.kind = 'correction' AND f.body->>'factId' = ANY($1)
     UNION ALL
     SELECT ${entryColumns('f')} FROM fact f WHERE ${takesBack('f')} AND f.body->>'takesBack' = ANY($1)`,
    [ids],
  );
}
