import type { Bar, Learned } from '@tempera/contract/bar';
import { memoryContextOf } from '@tempera/contract/station';
import { learnedWarmUp, warmUpsMin } from '@tempera/core/bar';
import {
  emptyMemory,
  groupOf,
  updateWithFacts,
  knownOf,
  posterior,
  responseOf,
  unpackMemory,
  windowMiddleS,
  type BarMemory,
} from '@tempera/core/calibration';
import { glassWeight, learnedDrip, readTrace } from '@tempera/core/capture';
import { factsSince, standingFacts, type ShotBody, type StandingFacts, type StepFact } from '@tempera/core/facts';
import { pumpWindowS } from '@tempera/core/house';
import { median, MS_PER_WEEK } from '@tempera/core/numbers';
import type { DataSource } from 'typeorm';
import { entryColumns, notWithdrawn, unpackedBody } from '../journal/index.ts';
import { burrKg } from './burrs.ts';
import { MachineEntity } from './entities.ts';
import { readBar } from './service.ts';

/** Older mornings say little about the machines of today. */
const WEEKS = 6;

/** What the bar has taught about every grinder and group, from its one memory. */
export async function learnedOf(db: DataSource, siteId: string, nowMs = Date.now()): Promise<Learned> {
  const sinceMs = nowMs - WEEKS * MS_PER_WEEK;
  const [bar, kg, steps, machines, drips, glasses] = await Promise.all([
    readBar(db, siteId),
    burrKg(db, siteId),
    warmUpSteps(db, siteId, sinceMs),
    db.getRepository(MachineEntity).findBy({ siteId, retired: false }),
    dripsOf(db, siteId),
    weighedGlasses(db, siteId),
  ]);
  const memory = memoryNow(bar);
  const model = posterior(memory, nowMs);
  const middlesS = bar.grinders.map(({ recipe }) => windowMiddleS(pumpWindowS(recipe)));
  // A group's effect is a share of the time; said in seconds of the house's usual shot.
  const usualS = middlesS.length === 0 ? 0 : median(middlesS);
  return {
    grinders: bar.grinders.flatMap(({ id, recipe }) => {
      const atS = windowMiddleS(pumpWindowS(recipe));
      const response = knownOf(model, responseOf(id));
      if (!response) return [];
      return [
        {
          id,
          secondsPerMark: response.mean * atS,
          sdS: response.sd * atS,
          shots: memory.grinders[id]?.shots ?? 0,
          burrKg: kg.get(id) ?? null,
        },
      ];
    }),
    machines: machines.map(({ id, warmUpMin }) => {
      const minutes = warmUpsMin(steps, id);
      const { meanMin, sdMin } = learnedWarmUp(warmUpMin, minutes);
      return { id, warmUpMin: meanMin, sdMin, mornings: minutes.length };
    }),
    drips,
    glass: glassWeight(glasses),
    groups: bar.machines
      .flatMap((machine) => machine.groups)
      .flatMap(({ id }) => {
        const effect = knownOf(model, groupOf(id));
        const shots = memory.groups[id]?.shots ?? 0;
        return effect && shots > 0 ? [{ id, offS: effect.mean * usualS, sdS: effect.sd * usualS, shots }] : [];
      }),
  };
}

/** The memory that was handed out with the bar, with everything that happened since. */
function memoryNow(bar: Bar): BarMemory {
  const start = unpackMemory(bar.memory.state) ?? emptyMemory;
  const since = factsSince(standingFacts(bar.facts), Date.parse(bar.memory.upTo));
  return updateWithFacts(start, since, memoryContextOf(bar));
}

/** The newest shots that were read off a glass and weighed as well, oldest first. */
async function weighedGlasses(db: DataSource, siteId: string): Promise<{ yieldG: number; glassMl: number }[]> {
  const rows = await db.query<{ yieldG: number; glassMl: number }[]>(
    `SELECT (f.body->>'yieldG')::float AS "yieldG", (f.body->>'glassMl')::float AS "glassMl" FROM fact f
      WHERE f.site_id = $1 AND f.kind = 'shot' AND f.body ? 'glassMl' AND ${notWithdrawn('f')}
        AND coalesce(f.body->'measured'->>'yield', 'scale') IN ('scale', 'weighedAfter')
      ORDER BY f.at DESC LIMIT 20`,
    [siteId],
  );
  return rows.toReversed();
}

/** Newest traces of each group that are read for its drip. */
const DRIP_TRACES = 12;

/** What dripped after the stop of a shot, by the id of its fact: facts never change, and a trace is long to read. */
const dripRead = new Map<string, number | null>();
const MOST_DRIPS_KEPT = 20_000;

/** What drips after the stop, by group, from its newest traces. */
async function dripsOf(db: DataSource, siteId: string): Promise<Learned['drips']> {
  const rows = await db.query<{ groupId: string; id: string }[]>(
    `SELECT h.id AS "groupId", s.id FROM group_head h CROSS JOIN LATERAL (
       SELECT f.id, f.at FROM fact f
        WHERE f.group_id = h.id AND f.kind = 'shot' AND jsonb_typeof(f.body->'trace') = 'object'
        ORDER BY f.at DESC LIMIT $2) s
      WHERE h.site_id = $1 AND NOT h.retired ORDER BY h.id, s.at`,
    [siteId, DRIP_TRACES],
  );
  await readDrips(
    db,
    rows.map(({ id }) => id).filter((id) => !dripRead.has(id)),
  );
  const byGroup = new Map<string, (number | null)[]>();
  for (const { groupId, id } of rows) byGroup.set(groupId, [...(byGroup.get(groupId) ?? []), dripRead.get(id) ?? null]);
  return [...byGroup].map(([groupId, grams]) => ({ groupId, ...learnedDrip(grams) }));
}

/** Traces that are read in one go, before others have their turn. */
const TRACES_AT_ONCE = 8;

async function readDrips(db: DataSource, ids: readonly string[]): Promise<void> {
  if (dripRead.size > MOST_DRIPS_KEPT) dripRead.clear();
  for (let from = 0; from < ids.length; from += TRACES_AT_ONCE) {
    const rows = await db.query<{ id: string; body: object }[]>('SELECT id, body FROM fact WHERE id = ANY($1)', [
      ids.slice(from, from + TRACES_AT_ONCE),
    ]);
    for (const { id, body } of rows) {
      const { trace, timeS, partial } = unpackedBody(body) as Pick<ShotBody, 'timeS' | 'trace' | 'partial'>;
      const whole = trace !== null && partial !== true && trace.massG.some((mass) => mass !== null);
      dripRead.set(id, whole ? readTrace({ ...trace, pumpOffS: timeS }).afterDripG : null);
    }
  }
}

/** When machines were switched on and found hot. */
async function warmUpSteps(db: DataSource, siteId: string, sinceMs: number): Promise<StandingFacts> {
  const rows = await db.query<StepFact[]>(
    `SELECT ${entryColumns('f')} FROM fact f WHERE f.site_id = $1 AND f.kind = 'step' AND f.at >= $2
        AND f.body->>'step' IN ('switchedOn', 'hot', 'takenBack')`,
    [siteId, new Date(sinceMs)],
  );
  return standingFacts(rows);
}
