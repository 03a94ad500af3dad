import type { NewEntry } from '@tempera/contract/journal';
import { houseTimeMs } from '@tempera/core/facts';
import type { DataSource, EntityManager } from 'typeorm';
import { prepared } from '../kernel/prepared.ts';
import { together, type Outcome } from '../kernel/together.ts';
import { checks, namedBy, namedColumns, refusalFor, type Found } from './checks.ts';
import type { FactRow } from './entities.ts';
import { whileWriting } from './sure.ts';
import { packedBody } from './traces.ts';

/** An entry that may be written, and who said yes to it where that was needed. */
export interface Told {
  fact: NewEntry;
  approvedBy: string | null;
}

/** What was kept; null where it was there before. */
type Kept = FactRow | null;
/** Keeps one entry, alone or with those that are told at the same time. @throws ProblemError for what it names and is not there */
export type Keep = (told: Told) => Promise<Kept>;

/** As much as one statement should hold up. */
const MOST = 32;

/** The checks of `told` by their names, as the statement speaks of them. */
const names = Object.keys(checks) as (keyof Found)[];

/**
 * What is told is one document, whatever its number: the statement is prepared once. Each row has its place in the order before any
 * is written, and what is not all well is told and not kept.
 */
const KEEPING = `
  WITH told AS MATERIALIZED (
         SELECT t.*, ${names.map((name) => `(${checks[name]}) AS ${name}`).join(', ')}
           FROM jsonb_to_recordset($1::jsonb) AS t (n int, id uuid, "siteId" uuid, kind text, at timestamptz,
                "receivedAt" timestamptz, "personId" uuid, "grinderId" uuid, "groupId" uuid, body jsonb, "deviceAt" timestamptz,
                "skewMs" float8, clock text, "approvedBy" uuid, ${namedColumns})),
       writing AS MATERIALIZED (
         SELECT count(${whileWriting('own."siteId"')}) FROM (SELECT DISTINCT "siteId" FROM told) own),
       kept AS (
         INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body, device_at, skew_ms, clock,
                           approved_by)
         SELECT t.id, t."siteId", t.kind, t.at, t."receivedAt", t."personId", t."grinderId", t."groupId", t.body, t."deviceAt",
                t."skewMs", coalesce(t.clock, CASE WHEN t.at < site.founded_at THEN 'early' END), t."approvedBy"
           FROM told t JOIN site ON site.id = t."siteId" CROSS JOIN writing
          WHERE ${names.map((name) => `t.${name}`).join(' AND ')}
          ORDER BY t.n
         ON CONFLICT (id) DO NOTHING RETURNING id, seq, clock)
  SELECT told.n, ${names.map((name) => `told.${name}`).join(', ')}, kept.seq::float8, kept.clock
    FROM told LEFT JOIN kept ON kept.id = told.id`;

/**
 * Checks what entries name, and keeps those of which all is there, in one statement. No honest fact is refused for its clock: time
 * ahead of its arrival was set to that already, and time before the café was set up is marked.
 * @param told of each id no more than one
 */
async function keepAll(db: DataSource | EntityManager, told: readonly Told[]): Promise<Outcome<Kept>[]> {
  const arrivedMs = Date.now();
  const rows = told.map(({ fact, approvedBy }) => {
    const { id, siteId, kind, personId, grinderId, groupId, skewMs } = fact;
    const deviceAt = new Date(fact.at);
    const at = new Date(houseTimeMs(deviceAt.getTime(), skewMs, arrivedMs));
    const clock = houseTimeMs(deviceAt.getTime(), skewMs, null) > arrivedMs ? 'ahead' : null;
    const body = packedBody(fact.body);
    const receivedAt = new Date(arrivedMs);
    const its = { id, siteId, kind, personId, grinderId, groupId };
    const row: Omit<FactRow, 'seq'> = { ...its, at, receivedAt, body, deviceAt, skewMs, clock, approvedBy };
    return { row, named: namedBy(fact) };
  });
  const document = JSON.stringify(rows.map(({ row, named }, n) => ({ n, ...row, ...named })));
  const found = await prepared<Found & { n: number; seq: number | null; clock: FactRow['clock'] }>(db, KEEPING, [
    document,
  ]);
  const byPlace = new Map(found.map((its) => [its.n, its]));
  return rows.map(({ row }, n) => {
    const its = byPlace.get(n);
    const refusal = its ? refusalFor(its) : null;
    if (refusal) return { failed: refusal };
    return { done: its?.seq == null ? null : { ...row, seq: its.seq, clock: its.clock } };
  });
}

/** Keeps one entry in a transaction, or in a statement of its own. @throws ProblemError for what it names and is not there */
export async function keep(db: DataSource | EntityManager, told: Told): Promise<Kept> {
  const [outcome] = await keepAll(db, [told]);
  if (!outcome || 'failed' in outcome) throw outcome?.failed;
  return outcome.done;
}

/** Keeps entries one by one where they come so, and in one statement where they come together. */
export function keeper(db: DataSource): Keep {
  const alone = async (told: Told): Promise<Outcome<Kept>> =>
    keep(db, told).then(
      (done) => ({ done }),
      (failed: unknown) => ({ failed }),
    );
  return together(MOST, async (asked) => {
    const [first] = asked;
    if (asked.length === 1 && first) return [await alone(first)];
    // What is told twice at once is kept once, and found there by the other.
    const firsts = asked.filter(({ fact }, i) => asked.findIndex((other) => other.fact.id === fact.id) === i);
    // One that the database will not have takes none of the others with it.
    const outcomes = await keepAll(db, firsts).catch(() => Promise.all(firsts.map(alone)));
    const outcomeOf = new Map(firsts.map((told, i) => [told, outcomes[i]]));
    return Promise.all(asked.map(async (told) => outcomeOf.get(told) ?? alone(told)));
  });
}
