import {
  emptyMemory,
  updateWithFacts,
  isMadeWith,
  MEMORY_ENGINE,
  packMemory,
  type BarMemory,
  type MemoryContext,
  type PackedMemory,
} from '@tempera/core/calibration';
import { factsBetween, standingFacts, type StandingFacts } from '@tempera/core/facts';
import { MS_PER_DAY } from '@tempera/core/numbers';
import { setImmediate } from 'node:timers/promises';
import type { DataSource } from 'typeorm';
import { sureSeq } from '../journal/index.ts';
import {
  BEFORE_ALL,
  dropSnapshots,
  dropSnapshotsAfter,
  factsToHear,
  keepSnapshot,
  newestSnapshot,
  snapshotsOf,
  superfluous,
  touchedSince,
  type ReadUpTo,
  type Snapshot,
} from './memoryStore.ts';

/** What the bar had taught by a moment. */
export interface Remembering {
  upToMs: number;
  state: PackedMemory;
}

/** So many facts are read in one go. */
const SLICE = 200;
/** So many of them are heard in one go, before others have their turn: some ten milliseconds. */
const HEARD_AT_ONCE = 50;
/** Whoever reads the bar waits so long for its memory; then it is given what was there before, and told when it is made. */
const PATIENCE_MS = 1_500;

/** One making at a time for each café and moment. */
const making = new Map<string, Promise<Snapshot>>();
/** The newest snapshot of each café as this process has it, since its state need not be read twice. */
const cached = new Map<string, Snapshot & { packed: PackedMemory }>();

/**
 * The memory of a café up to the start of its day, from its newest snapshot, carried forward. What arrived late since, or
 * corrects what is older, rewinds it to the snapshot before. Only a read makes a snapshot, never a write.
 * @param context what the facts are read with
 */
export async function memoryUpTo(
  db: DataSource,
  siteId: string,
  context: MemoryContext,
  upToMs: number,
): Promise<Remembering> {
  const snapshot = await validSnapshot(db, siteId, context, upToMs);
  if (snapshot?.upToMs === upToMs) return { upToMs, state: packedOf(siteId, snapshot) };
  const key = `${siteId} ${upToMs}`;
  const made =
    making.get(key) ??
    make(db, siteId, context, snapshot, upToMs).finally(() => {
      making.delete(key);
    });
  making.set(key, made);
  const inTime = await Promise.race([made, patience()]);
  if (inTime) return { upToMs, state: packedOf(siteId, inTime) };
  // It takes longer, after an upgrade or where years have to be heard again: what is there serves until it is made.
  void made.then(() => tellBrowsers(db, siteId)).catch(() => undefined);
  const old = snapshot ?? (await newestSnapshot(db, siteId, upToMs));
  return { upToMs, state: packMemory(old?.memory ?? emptyMemory) };
}

const patience = (): Promise<null> => new Promise((resolve) => setTimeout(() => resolve(null), PATIENCE_MS).unref());

function packedOf(siteId: string, snapshot: Snapshot): PackedMemory {
  const known = cached.get(siteId);
  if (known?.memory === snapshot.memory) return known.packed;
  const packed = packMemory(snapshot.memory);
  cached.set(siteId, { ...snapshot, packed });
  return packed;
}

/** The newest snapshot that still says what the facts say; those that do not are dropped. */
async function validSnapshot(
  db: DataSource,
  siteId: string,
  context: MemoryContext,
  upToMs: number,
): Promise<Snapshot | null> {
  for (;;) {
    const snapshot = await newest(db, siteId, upToMs);
    if (!snapshot) return null;
    // Another engine or another sheet: all is made again from the beginning, and this one serves meanwhile.
    if (snapshot.engine !== MEMORY_ENGINE || !isMadeWith(snapshot.memory, context)) return null;
    const touchedMs = await touchedSince(db, siteId, snapshot.heardSeq);
    if (touchedMs === null || touchedMs >= snapshot.upToMs) return snapshot;
    cached.delete(siteId);
    await dropSnapshotsAfter(db, siteId, touchedMs);
  }
}

async function newest(db: DataSource, siteId: string, upToMs: number): Promise<Snapshot | null> {
  const known = cached.get(siteId);
  if (known?.upToMs === upToMs && (await isStillThere(db, siteId, known))) return known;
  return newestSnapshot(db, siteId, upToMs);
}

async function isStillThere(db: DataSource, siteId: string, { upToMs, heardSeq }: Snapshot): Promise<boolean> {
  const rows = await db.query<object[]>(
    'SELECT 1 FROM bar_memory WHERE site_id = $1 AND up_to = $2 AND heard_seq = $3 AND engine = $4',
    [siteId, new Date(upToMs), heardSeq, MEMORY_ENGINE],
  );
  return rows.length > 0;
}

/** Makes the memory up to a moment, from a snapshot or from the beginning, and keeps it and what lies on the way. */
async function make(
  db: DataSource,
  siteId: string,
  context: MemoryContext,
  from: Snapshot | null,
  upToMs: number,
): Promise<Snapshot> {
  // Before anything is read: what is committed after this is looked at again by the next read.
  const heardSeq = await sureSeq(db, siteId);
  const others = from === null ? await snapshotsOf(db, siteId) : [];
  let memory: BarMemory = from?.memory ?? emptyMemory;
  let after: ReadUpTo = { atMs: from?.upToMs ?? 0, id: BEFORE_ALL };
  const stops = [...stopsOnTheWay(upToMs).filter((ms) => ms > after.atMs), upToMs];
  for (const stopMs of stops) {
    for await (const standing of slices(db, siteId, after, stopMs)) {
      for (let heard = 0; heard < standing.length; heard += HEARD_AT_ONCE) {
        memory = updateWithFacts(memory, factsBetween(standing, heard, heard + HEARD_AT_ONCE), context);
        await setImmediate();
      }
    }
    after = { atMs: stopMs, id: BEFORE_ALL };
    // Before its first shot a bar has taught nothing that is worth keeping.
    const worthKeeping = memory !== emptyMemory || stopMs === upToMs;
    if (heardSeq !== null && worthKeeping) await keepSnapshot(db, siteId, { upToMs: stopMs, heardSeq, memory });
  }
  if (heardSeq !== null) {
    // Those of another engine or of other sheets have served until now.
    await dropSnapshots(
      db,
      siteId,
      others.filter((ms) => !stops.includes(ms)),
    );
    await dropSnapshots(db, siteId, superfluous(await snapshotsOf(db, siteId)));
  }
  return { upToMs, heardSeq: heardSeq ?? 0, engine: MEMORY_ENGINE, memory };
}

/** What is to be heard up to a moment, slice by slice; the next is read while the one before is heard. */
async function* slices(
  db: DataSource,
  siteId: string,
  from: ReadUpTo,
  beforeMs: number,
): AsyncGenerator<StandingFacts, void> {
  let reading = factsToHear(db, siteId, from, beforeMs, SLICE);
  for (;;) {
    const { facts, corrections } = await reading;
    const last = facts.at(-1);
    if (!last) return;
    const isLast = facts.length < SLICE;
    if (!isLast) reading = factsToHear(db, siteId, { atMs: Date.parse(last.at), id: last.id }, beforeMs, SLICE);
    // A failure is met when the slice is asked for, not while another is heard.
    reading.catch(() => undefined);
    yield standingFacts([...facts, ...corrections]);
    if (isLast) return;
  }
}

/** Moments before the last at which a long making leaves a snapshot: years are not heard again for an old correction. */
function stopsOnTheWay(upToMs: number): number[] {
  const daysBefore = [...Array.from({ length: 40 }, (_, i) => 91 * (40 - i)), 56, 49, 42, 35, 28, 21, 14, 7, 3, 1];
  return daysBefore.map((days) => upToMs - days * MS_PER_DAY);
}

async function tellBrowsers(db: DataSource, siteId: string): Promise<void> {
  await db.query(
    `WITH noted AS (UPDATE site SET house_changed_at = clock_timestamp() WHERE id = $1 RETURNING id)
     SELECT pg_notify('tempera_house', json_build_object('siteId', id, 'what', 'memory')::text) FROM noted`,
    [siteId],
  );
}
