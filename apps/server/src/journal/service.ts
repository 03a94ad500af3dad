import { isDeepStrictEqual } from 'node:util';
import type {
  JournalPage,
  JournalQuery,
  NewEntry,
  RecordedEntry,
  RecordedFact,
  RecordedStep,
} from '@tempera/contract/journal';
import { houseTimeMs } from '@tempera/core/facts';
import type { Session } from '@tempera/contract/team';
import { MS_PER_DAY } from '@tempera/core/numbers';
import { In, type DataSource, type SelectQueryBuilder } from 'typeorm';
import type { StepEffects } from '../kernel/room.ts';
import { problem } from '../kernel/problems.ts';
import { confirm, unconfirmedAmong } from './unconfirmed.ts';
import { hasEffect, takeEffect } from './effects.ts';
import { FactEntity, type FactRow } from './entities.ts';
import { keep, type Keep, type Told } from './keep.ts';
import { mayWrite } from './mayWrite.ts';
import { packedBody, unpackedBody } from './traces.ts';
import { holdFact, notWithdrawn, noteWithdrawn } from './withdrawn.ts';

/** An entry as the wire has it. Entries from before clocks were measured are read by the same rule as new ones. */
export function toRecorded(row: FactRow): RecordedEntry {
  const { at, receivedAt, deviceAt, body, ...rest } = row;
  const houseMs = deviceAt === null ? houseTimeMs(at.getTime(), null, receivedAt.getTime()) : at.getTime();
  return {
    ...rest,
    body: unpackedBody(body),
    at: new Date(houseMs).toISOString(),
    deviceAt: (deviceAt ?? at).toISOString(),
    receivedAt: receivedAt.toISOString(),
  } as unknown as RecordedEntry;
}

/** Entries by their ids, as the wire has them, in the order of their arrival. */
export async function recordedByIds(db: DataSource, ids: string[]): Promise<RecordedEntry[]> {
  const rows = await db.getRepository(FactEntity).find({ where: { id: In(ids) }, order: { seq: 'ASC' } });
  return rows.map(toRecorded);
}

/**
 * Writes a fact once. The same id with the same content is answered as already done.
 * @throws ProblemError wrongSite, notYours, needsRole, headSigns, headBegins, unknownStation, unknownRecipe, unknownFact, idTaken
 */
export async function recordFact(
  db: DataSource,
  session: Session,
  fact: NewEntry,
  { effects, keeps }: { effects: StepEffects; keeps: Keep },
): Promise<{ fact: RecordedEntry; created: boolean }> {
  if (fact.siteId !== session.site.id) throw problem('wrongSite');
  if (fact.personId !== session.person.id) throw problem('notYours');
  const approvedBy = await mayWrite(db, session, fact, stepsSince);
  const told = { fact, approvedBy };
  // In one statement, or in one transaction with what it changes besides.
  const written = await (fact.kind === 'correction' || hasEffect(effects, fact)
    ? keepWhole(db, told, effects)
    : keeps(told));
  const kept = written ?? (await db.getRepository(FactEntity).findOneByOrFail({ id: fact.id }));
  if (!written && !sameFact(kept, fact)) throw problem('idTaken');
  if (!written) await confirm(db.manager, fact.id);
  return { fact: withoutTrace(kept), created: written !== null };
}

/** Keeps an entry, and what it changes besides: what a step does, and what a correction makes of its target for queries that select what stands. */
function keepWhole(db: DataSource, told: Told, effects: StepEffects): Promise<FactRow | null> {
  const { fact } = told;
  return db.transaction(async (tx) => {
    if (fact.kind === 'correction') await holdFact(tx, fact.body.factId);
    const kept = await keep(tx, told);
    if (!kept) return null;
    if (fact.kind === 'correction') await noteWithdrawn(tx, fact.siteId, fact.body.factId);
    else await takeEffect(tx, effects, kept);
    return kept;
  });
}

/** Whether what is kept says the same as what is told. */
export function sameFact(kept: FactRow, fact: NewEntry): boolean {
  return (
    kept.siteId === fact.siteId &&
    kept.kind === fact.kind &&
    // What the device said is compared, not what was made of it: the clock may have been measured anew meanwhile.
    (kept.deviceAt ?? kept.at).getTime() === Date.parse(fact.at) &&
    kept.personId === fact.personId &&
    kept.grinderId === fact.grinderId &&
    kept.groupId === fact.groupId &&
    isDeepStrictEqual(kept.body, JSON.parse(JSON.stringify(packedBody(fact.body))))
  );
}

/** A page's worth of facts by one way of finding them: each is read from an index in its order, newest first. */
type Way = (select: SelectQueryBuilder<FactRow>) => SelectQueryBuilder<FactRow>;

/** Steps of the bar's own name their stations in the body, and are found apart: an index serves one way, and not both at once. */
function waysOf({ grinderId, groupId, personId, kind }: JournalQuery, siteId: string): Way[] {
  const isStep = `f.kind = 'step'`;
  if (groupId) {
    return [
      (select) => select.where('f.groupId = :groupId', { groupId }),
      (select) => select.where(`${isStep} AND f.body->>'groupId' = :groupId`, { groupId }),
    ];
  }
  if (grinderId) {
    return [
      (select) => select.where('f.grinderId = :grinderId', { grinderId }),
      (select) => select.where(`${isStep} AND f.body->>'grinderId' = :grinderId`, { grinderId }),
    ];
  }
  if (personId) return [(select) => select.where('f.personId = :personId', { personId })];
  if (kind) return [(select) => select.where('f.siteId = :siteId AND f.kind = :kind', { siteId, kind })];
  return [(select) => select.where('f.siteId = :siteId', { siteId })];
}

/** One page of the journal, newest first, with what its corrections belong to. */
export async function journalPage(db: DataSource, siteId: string, query: JournalQuery): Promise<JournalPage> {
  const { grinderId, groupId, personId, kind, beforeSeq, limit } = query;
  const found = await Promise.all(
    waysOf(query, siteId).map((way) => {
      const select = way(db.getRepository(FactEntity).createQueryBuilder('f'));
      if (grinderId && groupId)
        select.andWhere(`(f.grinderId = :own OR f.body->>'grinderId' = :own::text)`, { own: grinderId });
      if (personId) select.andWhere('f.personId = :by', { by: personId });
      if (kind) select.andWhere('f.kind = :of', { of: kind });
      if (beforeSeq) select.andWhere('f.seq < :beforeSeq', { beforeSeq });
      return select.orderBy('f.seq', 'DESC').take(limit).getMany();
    }),
  );
  // Stations and people are of one café: what is asked of another's finds nothing that is shown.
  const rows = found
    .flat()
    .filter((row) => row.siteId === siteId)
    .toSorted((a, b) => b.seq - a.seq)
    .slice(0, limit);
  const [related, unconfirmed] = await Promise.all([
    relatedFacts(db, siteId, rows),
    unconfirmedAmong(
      db,
      rows.map(({ id }) => id),
    ),
  ]);
  return {
    facts: rows.map(withoutTrace),
    related: related.map(withoutTrace),
    ...(unconfirmed.length > 0 && { unconfirmed: unconfirmed.map(({ factId }) => factId) }),
    nextBeforeSeq: rows.length === limit ? (rows.at(-1)?.seq ?? null) : null,
  };
}

/** What the corrections on a page are about, and what corrects its facts: two look-ups by id, each with its index. */
export async function relatedFacts(db: DataSource, siteId: string, rows: FactRow[]): Promise<FactRow[]> {
  const ids = rows.map((row) => row.id);
  const targets = rows.filter((row) => row.kind === 'correction').map((row) => (row.body as { factId: string }).factId);
  const look = (where: string, wanted: string[]): Promise<FactRow[]> =>
    wanted.length === 0
      ? Promise.resolve([])
      : db.getRepository(FactEntity).createQueryBuilder('f').where(where, { wanted }).getMany();
  const found = await Promise.all([
    look('f.id = ANY(:wanted)', targets),
    look(`f.kind = 'correction' AND f.body->>'factId' = ANY(:wanted)`, ids),
  ]);
  const related = new Map(found.flat().map((row) => [row.id, row]));
  return [...related.values()].filter((row) => row.siteId === siteId);
}

/** A trace is drawn on its bench only; lists go without its two kilobytes. */
export function withoutTrace(row: FactRow): RecordedEntry {
  return toRecorded(row.kind === 'shot' ? { ...row, body: { ...row.body, trace: null } } : row);
}

/** What is said for longer than a day: an aim that was kept, a note that waits, a hand-over. */
const LASTING = ['aimKept', 'note', 'noteDone', 'handedOver', 'takenOver', 'takenBack'];
/** What the last closing left, read by the opening after it, however many days the house was closed between. */
const CLOSING = ['planned', 'skipped', 'backFlushed', 'tomorrow', 'signedOff'];
const LASTING_MS = 30 * MS_PER_DAY;

/** Steps of the bar since a moment, oldest first, and those before it that are said for longer. */
export async function stepsSince(db: DataSource, siteId: string, sinceMs: number): Promise<RecordedStep[]> {
  const rows = await db
    .getRepository(FactEntity)
    .createQueryBuilder('f')
    // The oldest bound is said for all of them, where the index takes it: otherwise every step the house ever took is gone through.
    .where('f.siteId = :siteId AND f.kind = :kind AND f.at >= :lasting', { siteId, kind: 'step' })
    .andWhere(
      `(f.at >= :since OR f.body->>'step' IN (:...steps) OR (f.body->>'step' IN (:...closing) AND f.at >= (
          SELECT p.at FROM fact p WHERE p.site_id = :siteId AND p.kind = 'step' AND p.body->>'step' = 'planned'
             AND p.body->>'run' = 'closing' AND p.at >= :lasting ORDER BY p.at DESC LIMIT 1)))`,
      {
        since: new Date(sinceMs),
        lasting: new Date(sinceMs - LASTING_MS),
        steps: LASTING,
        closing: CLOSING,
      },
    )
    .orderBy('f.at', 'ASC')
    .getMany();
  return rows.map((row) => toRecorded(row) as RecordedStep);
}

/** How many locks back a bench reads: enough that a withdrawn lock uncovers the one before it. */
const LOCKS_BACK = 3;
/** A grinder that was never locked could otherwise read its whole life. */
const MAX_BENCH_FACTS = 500;

/**
 * Facts of one grinder, or of all of a café, from its third-last lock on and from `fromMs` on, and the bag in its hopper
 * however long ago it went in: what tells how each stands. Corrections come with what they correct, whatever their clock.
 */
async function recentFacts(
  db: DataSource,
  siteId: string,
  { grinderId, fromMs, traces }: { grinderId: string | null; fromMs: number; traces: boolean },
): Promise<FactRow[]> {
  const body = traces ? 'f.body' : `CASE f.kind WHEN 'shot' THEN f.body || '{"trace":null}' ELSE f.body END`;
  return db.query<FactRow[]>(
    `WITH wanted AS (
       SELECT w.id FROM grinder g
         LEFT JOIN LATERAL (SELECT LEAST(l.at, l.received_at) AS at FROM fact l
                             WHERE l.grinder_id = g.id AND l.kind = 'lock' ORDER BY l.at DESC OFFSET $3 LIMIT 1) back ON true
         CROSS JOIN LATERAL (
           (SELECT r.id FROM fact r WHERE r.grinder_id = g.id AND r.at >= $5)
           UNION (SELECT r.id FROM fact r WHERE r.grinder_id = g.id AND r.at >= coalesce(back.at, '-infinity')
                   ORDER BY r.at DESC LIMIT $4)
           UNION (SELECT b.id FROM fact b WHERE b.grinder_id = g.id AND b.kind = 'newBag' AND ${notWithdrawn('b')}
                   ORDER BY b.at DESC LIMIT 1)) w
        WHERE g.site_id = $1 AND NOT g.retired AND ($2::uuid IS NULL OR g.id = $2))
     SELECT f.id, f.seq::float8 AS seq, f.site_id AS "siteId", f.kind, f.at, f.received_at AS "receivedAt",
            f.person_id AS "personId", f.grinder_id AS "grinderId", f.group_id AS "groupId", ${body} AS body,
            f.device_at AS "deviceAt", f.skew_ms AS "skewMs", f.clock, f.approved_by AS "approvedBy"
       FROM fact f
      -- As lists: however many the planner thinks they are, each is looked up by its index.
      WHERE f.id = ANY (ARRAY(SELECT id FROM wanted)
                        || ARRAY(SELECT c.id FROM fact c WHERE c.kind = 'correction'
                                    AND c.body->>'factId' = ANY (ARRAY(SELECT id::text FROM wanted))))`,
    [siteId, grinderId, LOCKS_BACK - 1, MAX_BENCH_FACTS, new Date(fromMs)],
  );
}

/**
 * What tells how grinders stand, as the wire has it.
 * @param asked `traces`: whether shots keep theirs; lists go without
 */
export async function benchFacts(
  db: DataSource,
  siteId: string,
  asked: { grinderId: string | null; fromMs: number; traces: boolean },
): Promise<RecordedFact[]> {
  const rows = await recentFacts(db, siteId, asked);
  // Read by grinder, so none of them is a step of the bar itself.
  return rows.map((row) => toRecorded(row) as RecordedFact);
}
