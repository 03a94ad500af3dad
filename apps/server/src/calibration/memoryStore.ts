import {
  evidenceKinds,
  evidenceSteps,
  MEMORY_ENGINE,
  packMemory,
  unpackMemory,
  type BarMemory,
  type PackedMemory,
} from '@tempera/core/calibration';
import type { Entry } from '@tempera/core/facts';
import { MS_PER_DAY } from '@tempera/core/numbers';
import type { DataSource } from 'typeorm';
import { entryColumns, houseAt, undoersOf } from '../journal/index.ts';

/** Where snapshots of the bar's memory are kept, and the facts that it is made from. */

/** A snapshot as it is kept. */
export interface Snapshot {
  upToMs: number;
  heardSeq: number;
  engine: number;
  memory: BarMemory;
}

const inSql = (words: readonly string[]): string => words.map((word) => `'${word}'`).join(', ');
/** SQL that is true of what the memory hears; as the index `fact_heard_ix` has it. @param fact the query's name for it */
const isHeard = (fact: string): string =>
  `(${fact}.kind IN (${inSql(evidenceKinds)})
    OR (${fact}.kind = 'step' AND ${fact}.body->>'step' IN (${inSql(evidenceSteps)})))`;
/** What takes one of them back or puts it right. */
const CORRECTS = `CASE WHEN f.kind = 'correction' THEN f.body->>'factId' WHEN f.body->>'step' = 'takenBack' THEN f.body->>'takesBack' END`;
const HOUSE_AT = houseAt('f');

/** The newest snapshot up to a moment that can be read; null where there is none. */
export async function newestSnapshot(db: DataSource, siteId: string, upToMs: number): Promise<Snapshot | null> {
  const rows = await db.query<{ upTo: Date; heardSeq: number; engine: number; state: PackedMemory }[]>(
    `SELECT up_to AS "upTo", heard_seq AS "heardSeq", engine, state FROM bar_memory
      WHERE site_id = $1 AND up_to <= $2 ORDER BY up_to DESC LIMIT 1`,
    [siteId, new Date(upToMs)],
  );
  const [row] = rows;
  const memory = row && unpackMemory(row.state);
  return row && memory ? { upToMs: row.upTo.getTime(), heardSeq: row.heardSeq, engine: row.engine, memory } : null;
}

/** The snapshots that are there, newest first, without what they hold. */
export async function snapshotsOf(db: DataSource, siteId: string): Promise<number[]> {
  const rows = await db.query<{ upTo: Date }[]>(
    'SELECT up_to AS "upTo" FROM bar_memory WHERE site_id = $1 ORDER BY up_to DESC',
    [siteId],
  );
  return rows.map(({ upTo }) => upTo.getTime());
}

/** Keeps a snapshot; one of the same moment is replaced, unless it has heard more. */
export async function keepSnapshot(db: DataSource, siteId: string, snapshot: Omit<Snapshot, 'engine'>): Promise<void> {
  const { upToMs, heardSeq, memory } = snapshot;
  await db.query(
    `INSERT INTO bar_memory (site_id, up_to, heard_seq, engine, state) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (site_id, up_to) DO UPDATE
       SET heard_seq = EXCLUDED.heard_seq, engine = EXCLUDED.engine, state = EXCLUDED.state, made_at = now()
     WHERE bar_memory.heard_seq <= EXCLUDED.heard_seq`,
    [siteId, new Date(upToMs), heardSeq, MEMORY_ENGINE, JSON.stringify(packMemory(memory))],
  );
}

/** Drops the snapshots that lie after a moment. */
export async function dropSnapshotsAfter(db: DataSource, siteId: string, afterMs: number): Promise<void> {
  await db.query('DELETE FROM bar_memory WHERE site_id = $1 AND up_to > $2', [siteId, new Date(afterMs)]);
}

/** Drops these snapshots. */
export async function dropSnapshots(db: DataSource, siteId: string, upToMs: readonly number[]): Promise<void> {
  if (upToMs.length === 0) return;
  await db.query('DELETE FROM bar_memory WHERE site_id = $1 AND up_to = ANY($2)', [
    siteId,
    upToMs.map((ms) => new Date(ms)),
  ]);
}

/**
 * The earliest moment of which something was told after a snapshot was made: a fact that arrived late, or a correction of
 * an old one. Null where nothing was.
 */
export async function touchedSince(db: DataSource, siteId: string, heardSeq: number): Promise<number | null> {
  const [row] = await db.query<{ at: Date | null }[]>(
    `SELECT min(${houseAt('t')}) AS at FROM fact f
       JOIN fact t ON t.id = coalesce((${CORRECTS})::uuid, f.id)
      WHERE f.site_id = $1 AND f.seq > $2 AND ${isHeard('t')} AND t.clock IS DISTINCT FROM 'early'`,
    [siteId, heardSeq],
  );
  return row?.at?.getTime() ?? null;
}

/** Where to go on reading: after this fact. */
export interface ReadUpTo {
  atMs: number;
  id: string;
}

/** Before every fact of its moment. */
export const BEFORE_ALL = '00000000-0000-0000-0000-000000000000';

/**
 * The next facts that the memory hears, oldest first, with their corrections whenever those were written. Facts whose clock
 * stood before the café's first day are not heard: nobody knows when they happened.
 */
export async function factsToHear(
  db: DataSource,
  siteId: string,
  after: ReadUpTo,
  beforeMs: number,
  limit: number,
): Promise<{ facts: Entry[]; corrections: Entry[] }> {
  const facts = await db.query<Entry[]>(
    `SELECT ${entryColumns('f')} FROM fact f
      WHERE f.site_id = $1 AND ${isHeard('f')} AND (${HOUSE_AT}, f.id) > ($2, $3::uuid) AND ${HOUSE_AT} < $4
        AND f.clock IS DISTINCT FROM 'early'
      ORDER BY ${HOUSE_AT}, f.id LIMIT $5`,
    [siteId, new Date(after.atMs), after.id, new Date(beforeMs), limit],
  );
  const corrections = await undoersOf(
    db,
    facts.map(({ id }) => id),
  );
  return { facts, corrections };
}

/**
 * Which snapshots are kept beside the newest: each day's for a week, a week's for two months, then a quarter's, so that a
 * correction of an old shot is replayed from not long before it.
 * @param upToMs newest first @returns those that may go
 */
export function superfluous(upToMs: readonly number[]): number[] {
  const [newest] = upToMs;
  if (newest === undefined) return [];
  const gapOf = (ageMs: number): number =>
    ageMs <= 8 * MS_PER_DAY ? 0 : ageMs <= 60 * MS_PER_DAY ? 7 * MS_PER_DAY : 91 * MS_PER_DAY;
  const gone: number[] = [];
  // From the oldest: what is kept stays kept as it ages.
  let kept = -Infinity;
  for (const ms of upToMs.toReversed()) {
    if (ms - kept < gapOf(newest - ms) && ms !== newest) gone.push(ms);
    else kept = ms;
  }
  return gone;
}
