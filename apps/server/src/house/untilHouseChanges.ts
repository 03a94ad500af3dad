import type { DataSource } from 'typeorm';
import { prepared } from '../kernel/prepared.ts';

/** Cafés of which one process keeps something at a time; the one that was asked for longest ago goes. */
const MOST_CAFES = 200;

/**
 * What is made of the house book alone, kept in this process until anything of the house is changed: sheets, recipes and
 * policies are read at every look at the bar, and written a few times a week.
 * @param make reads it; `key` says what else it hangs on, such as the day
 */
export function untilHouseChanges<T>(
  make: (db: DataSource, siteId: string, key: string) => Promise<T>,
): (db: DataSource, siteId: string, key: string) => Promise<T> {
  const keptBy = new WeakMap<DataSource, Map<string, { asOf: string; made: Promise<T> }>>();
  return async (db, siteId, key) => {
    // Looked up before anything is read: what is changed meanwhile has another moment, and is read again by the next.
    const [site] = await prepared<{ changedAt: string | null }>(
      db,
      'SELECT house_changed_at::text AS "changedAt" FROM site WHERE id = $1',
      [siteId],
    );
    const changedAt = site?.changedAt ?? null;
    if (changedAt === null) return make(db, siteId, key);
    const kept = keptBy.get(db) ?? new Map<string, { asOf: string; made: Promise<T> }>();
    keptBy.set(db, kept);
    const asOf = `${changedAt} ${key}`;
    const known = kept.get(siteId);
    const made = known?.asOf === asOf ? known.made : make(db, siteId, key);
    kept.delete(siteId);
    kept.set(siteId, { asOf, made });
    const [oldest] = kept.keys();
    if (kept.size > MOST_CAFES && oldest !== undefined) kept.delete(oldest);
    // What could not be read is not kept.
    made.catch(() => kept.delete(siteId));
    return made;
  };
}
