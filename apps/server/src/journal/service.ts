import { isDeepStrictEqual } from 'node:util';
import type {
  JournalPage,
  JournalQuery,
  NewEntry,
  NewFact,
  NewStep,
  RecordedEntry,
  RecordedFact,
  RecordedStep,
} from '@tempera/contract/journal';
import { stationsOf } from '@tempera/core/facts';
import type { Session } from '@tempera/contract/team';
import dayjs from 'dayjs';
import { MoreThanOrEqual, type DataSource } from 'typeorm';
import { problem } from '../platform/problems.ts';
import { FactEntity, type FactRow } from './entities.ts';
import { packedBody, unpackedBody } from './traces.ts';

/** Clocks of tablets drift; more than this is a wrong clock. */
const CLOCK_TOLERANCE_MIN = 10;

export function toRecorded(row: FactRow): RecordedEntry {
  const { at, receivedAt, body, ...rest } = row;
  return {
    ...rest,
    body: unpackedBody(body),
    at: at.toISOString(),
    receivedAt: receivedAt.toISOString(),
  } as unknown as RecordedEntry;
}

/**
 * Writes a fact once. The same id with the same content is answered as already done.
 * @throws ProblemError wrongSite, unknownStation, unknownRecipe, unknownFact, fromTheFuture, idTaken
 */
export async function recordFact(
  db: DataSource,
  session: Session,
  fact: NewEntry,
): Promise<{ fact: RecordedEntry; created: boolean }> {
  if (fact.siteId !== session.site.id) throw problem('wrongSite');
  if (dayjs(fact.at).isAfter(dayjs().add(CLOCK_TOLERANCE_MIN, 'minute'))) throw problem('fromTheFuture');
  if (fact.kind === 'step') {
    await checkStep(db, fact);
    if (fact.body.step === 'signedOff' && session.person.role !== 'head') throw problem('headSigns');
  } else await checkReferences(db, fact);
  const rows = await db.query<{ id: string }[]>(
    `INSERT INTO fact (id, site_id, kind, at, person_id, grinder_id, group_id, body)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8) ON CONFLICT (id) DO NOTHING RETURNING id`,
    [
      fact.id,
      fact.siteId,
      fact.kind,
      fact.at,
      session.person.id,
      fact.grinderId,
      fact.groupId,
      JSON.stringify(packedBody(fact.body)),
    ],
  );
  const kept = await db.getRepository(FactEntity).findOneByOrFail({ id: fact.id });
  if (rows.length === 0 && !sameFact(kept, fact)) throw problem('idTaken');
  return { fact: toRecorded(kept), created: rows.length > 0 };
}

function sameFact(kept: FactRow, fact: NewEntry): boolean {
  return (
    kept.siteId === fact.siteId &&
    kept.kind === fact.kind &&
    kept.at.getTime() === Date.parse(fact.at) &&
    kept.grinderId === fact.grinderId &&
    kept.groupId === fact.groupId &&
    isDeepStrictEqual(kept.body, JSON.parse(JSON.stringify(packedBody(fact.body))))
  );
}

/** Everything that a step names must belong to its café: stations, people, and a step that it takes back. */
async function checkStep(db: DataSource, { siteId, body }: NewStep): Promise<void> {
  const { machineId = null, grinderId = null, groupId = null } = stationsOf(body);
  const claimed = body.step === 'begun' || body.step === 'skipped' ? body.stationId : null;
  const target = body.step === 'takenBack' ? body.takesBack : null;
  const people =
    body.step === 'planned'
      ? body.people.map(({ personId }) => personId)
      : body.step === 'tasted'
        ? [body.tasterId]
        : [];
  const rows = await db.query<{ station: boolean; target: boolean; people: boolean }[]>(
    `SELECT ($2::uuid IS NULL OR EXISTS (SELECT 1 FROM machine WHERE id = $2 AND site_id = $1))
              AND ($3::uuid IS NULL OR EXISTS (SELECT 1 FROM grinder WHERE id = $3 AND site_id = $1))
              AND ($4::uuid IS NULL OR EXISTS (SELECT 1 FROM group_head WHERE id = $4 AND site_id = $1))
              AND ($5::uuid IS NULL OR EXISTS (
                SELECT 1 FROM machine WHERE id = $5 AND site_id = $1 UNION ALL
                SELECT 1 FROM grinder WHERE id = $5 AND site_id = $1 UNION ALL
                SELECT 1 FROM group_head WHERE id = $5 AND site_id = $1)) AS station,
            $6::uuid IS NULL OR EXISTS (SELECT 1 FROM fact WHERE id = $6 AND site_id = $1 AND kind = 'step') AS target,
            NOT EXISTS (SELECT 1 FROM unnest($7::uuid[]) AS asked (id)
                         WHERE NOT EXISTS (SELECT 1 FROM person p WHERE p.id = asked.id AND p.site_id = $1)) AS people`,
    [siteId, machineId, grinderId, groupId, claimed, target, people],
  );
  if (!rows[0]?.station) throw problem('unknownStation');
  if (!rows[0].target) throw problem('unknownFact');
  if (!rows[0].people) throw problem('unknownPart');
}

/** Everything that a fact names must belong to its café; one round trip finds out. */
async function checkReferences(db: DataSource, fact: NewFact): Promise<void> {
  const { siteId, grinderId, groupId } = fact;
  const recipeId = fact.kind === 'shot' || fact.kind === 'lock' ? fact.body.recipeVersionId : null;
  const targetId = fact.kind === 'correction' ? fact.body.factId : null;
  const { bagId = null, coffeeId = null } = fact.kind === 'newBag' ? fact.body : {};
  const rows = await db.query<{ station: boolean; recipe: boolean; target: boolean; coffee: boolean }[]>(
    `SELECT EXISTS (SELECT 1 FROM grinder WHERE id = $2 AND site_id = $1)
              AND ($3::uuid IS NULL OR EXISTS (SELECT 1 FROM group_head WHERE id = $3 AND site_id = $1)) AS station,
            $4::uuid IS NULL OR EXISTS (SELECT 1 FROM recipe_version WHERE id = $4 AND site_id = $1) AS recipe,
            $5::uuid IS NULL OR EXISTS (SELECT 1 FROM fact WHERE id = $5 AND site_id = $1 AND grinder_id = $2
                                           AND kind <> 'correction') AS target,
            ($6::uuid IS NULL OR EXISTS (SELECT 1 FROM coffee WHERE id = $6 AND site_id = $1))
              AND ($7::uuid IS NULL OR EXISTS (SELECT 1 FROM bag WHERE id = $7 AND site_id = $1
                                                  AND coffee_id = $6)) AS coffee`,
    [siteId, grinderId, groupId, recipeId, targetId, coffeeId, bagId],
  );
  const found = rows[0];
  if (!found?.station) throw problem('unknownStation');
  if (!found.recipe) throw problem('unknownRecipe');
  if (!found.target) throw problem('unknownFact');
  if (!found.coffee) throw problem('unknownPart');
}

/** One page of the journal, newest first, with what its corrections belong to. */
export async function journalPage(db: DataSource, siteId: string, query: JournalQuery): Promise<JournalPage> {
  const select = db.getRepository(FactEntity).createQueryBuilder('f').where('f.siteId = :siteId', { siteId });
  const { grinderId, groupId, personId, kind, beforeSeq, limit } = query;
  // Steps of the bar's own name their stations in the body.
  if (grinderId)
    select.andWhere(`(f.grinderId = :grinderId OR (f.kind = 'step' AND f.body->>'grinderId' = :grinderId::text))`, {
      grinderId,
    });
  if (groupId)
    select.andWhere(`(f.groupId = :groupId OR (f.kind = 'step' AND f.body->>'groupId' = :groupId::text))`, { groupId });
  if (personId) select.andWhere('f.personId = :personId', { personId });
  if (kind) select.andWhere('f.kind = :kind', { kind });
  if (beforeSeq) select.andWhere('f.seq < :beforeSeq', { beforeSeq });
  const rows = await select.orderBy('f.seq', 'DESC').take(limit).getMany();
  const related = await relatedFacts(db, siteId, rows);
  return {
    facts: rows.map(withoutTrace),
    related: related.map(withoutTrace),
    nextBeforeSeq: rows.length === limit ? (rows.at(-1)?.seq ?? null) : null,
  };
}

async function relatedFacts(db: DataSource, siteId: string, rows: FactRow[]): Promise<FactRow[]> {
  const ids = rows.map((row) => row.id);
  const targets = rows.filter((row) => row.kind === 'correction').map((row) => (row.body as { factId: string }).factId);
  if (ids.length === 0) return [];
  return db
    .getRepository(FactEntity)
    .createQueryBuilder('f')
    .where('f.siteId = :siteId', { siteId })
    .andWhere(`(f.id = ANY(:targets) OR (f.kind = 'correction' AND f.body->>'factId' = ANY(:ids)))`, { targets, ids })
    .getMany();
}

/** A trace is drawn on its bench only; lists go without its two kilobytes. */
function withoutTrace(row: FactRow): RecordedEntry {
  return toRecorded(row.kind === 'shot' ? { ...row, body: { ...row.body, trace: null } } : row);
}

/** Steps of the machines since a moment, oldest first. */
export async function stepsSince(db: DataSource, siteId: string, sinceMs: number): Promise<RecordedStep[]> {
  const rows = await db
    .getRepository(FactEntity)
    .find({ where: { siteId, kind: 'step', at: MoreThanOrEqual(new Date(sinceMs)) }, order: { at: 'ASC' } });
  return rows.map((row) => toRecorded(row) as RecordedStep);
}

/** How many locks back a bench reads: enough that a withdrawn lock uncovers the one before it. */
const LOCKS_BACK = 3;
/** A grinder that was never locked could otherwise read its whole life. */
const MAX_BENCH_FACTS = 500;

/**
 * Facts of one grinder, or of all of a café, from its third-last lock on, and the bag in its hopper however long ago it
 * went in: what tells how each stands.
 */
async function recentFacts(db: DataSource, siteId: string, grinderId: string | null): Promise<FactRow[]> {
  const rows = await db.query<FactRow[]>(
    `SELECT recent.* FROM grinder g
       LEFT JOIN LATERAL (SELECT l.at FROM fact l WHERE l.grinder_id = g.id AND l.kind = 'lock'
                           ORDER BY l.at DESC OFFSET $3 LIMIT 1) back ON true
       LEFT JOIN LATERAL (SELECT b.id FROM fact b WHERE b.grinder_id = g.id AND b.kind = 'newBag'
                             AND NOT EXISTS (SELECT 1 FROM fact c WHERE c.kind = 'correction'
                                                AND c.body->>'factId' = b.id::text AND (c.body->>'withdrawn')::boolean)
                           ORDER BY b.at DESC LIMIT 1) bag ON true
       CROSS JOIN LATERAL (
         SELECT f.id, f.seq::float8 AS seq, f.site_id AS "siteId", f.kind, f.at, f.received_at AS "receivedAt",
                f.person_id AS "personId", f.grinder_id AS "grinderId", f.group_id AS "groupId", f.body
           FROM fact f JOIN (
             (SELECT r.id FROM fact r WHERE r.grinder_id = g.id AND r.at >= coalesce(back.at, '-infinity')
               ORDER BY r.at DESC LIMIT $4)
             UNION SELECT bag.id WHERE bag.id IS NOT NULL) wanted ON wanted.id = f.id) recent
      WHERE g.site_id = $1 AND ($2::uuid IS NULL OR g.id = $2)`,
    [siteId, grinderId, LOCKS_BACK - 1, MAX_BENCH_FACTS],
  );
  return rows;
}

/**
 * What tells how grinders stand, as the wire has it.
 * @param traces whether shots keep theirs; lists go without
 */
export async function benchFacts(
  db: DataSource,
  siteId: string,
  grinderId: string | null,
  traces: boolean,
): Promise<RecordedFact[]> {
  const rows = await recentFacts(db, siteId, grinderId);
  // Read by grinder, so none of them is a step of the bar itself.
  return rows.map((row) => (traces ? toRecorded(row) : withoutTrace(row)) as RecordedFact);
}
