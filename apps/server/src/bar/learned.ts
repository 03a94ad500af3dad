import { MS_PER_WEEK } from '@tempera/core/numbers';
import type { Learned } from '@tempera/contract/bar';
import {
  groupOf,
  knownOf,
  rememberedBar,
  responseOf,
  windowMiddleS,
  type GrinderInBar,
} from '@tempera/core/calibration';
import { learnedWarmUp, warmUpsMin } from '@tempera/core/bar';
import { pumpWindowS } from '@tempera/core/house';
import { learnedDrip, readTrace } from '@tempera/core/capture';
import type { AnyFact, ShotBody } from '@tempera/core/facts';
import type { DataSource } from 'typeorm';
import { stepsSince, unpackedBody } from '../journal/index.ts';
import { MachineEntity } from './entities.ts';
import { readBar } from './service.ts';

/** Older shots say little about the burrs and screens of today. */
const WEEKS = 6;

/** What the shots of the last weeks taught about every grinder and group. */
export async function learnedOf(db: DataSource, siteId: string, nowMs = Date.now()): Promise<Learned> {
  const sinceMs = nowMs - WEEKS * MS_PER_WEEK;
  const [bar, facts, kg, steps, machines, drips] = await Promise.all([
    readBar(db, siteId),
    shotFacts(db, siteId, sinceMs),
    burrKg(db, siteId),
    stepsSince(db, siteId, sinceMs),
    db.getRepository(MachineEntity).findBy({ siteId, retired: false }),
    dripsOf(db, siteId),
  ]);
  const grinders = bar.grinders.map((grinder): GrinderInBar => {
    const timeS = pumpWindowS(grinder.recipe);
    return {
      ...grinder,
      dial: {
        stepMarks: grinder.stepMarks,
        finer: grinder.finer,
        range: { min: grinder.dialMin, max: grinder.dialMax },
      },
      recipe: { ...grinder.recipe, timeS },
    };
  });
  const model = rememberedBar(grinders, facts);
  const shots = facts.filter(({ kind }) => kind === 'shot');
  const middlesS = grinders.map(({ recipe }) => windowMiddleS(recipe.timeS)).sort((a, b) => a - b);
  // A group's effect is a share of the time; said in seconds of the house's usual shot.
  const usualS = middlesS[Math.floor(middlesS.length / 2)] ?? 0;
  return {
    grinders: grinders.flatMap(({ id, recipe }) => {
      const atS = windowMiddleS(recipe.timeS);
      const response = knownOf(model, responseOf(id));
      if (!response) return [];
      return [
        {
          id,
          secondsPerMark: response.mean * atS,
          sdS: response.sd * atS,
          shots: shots.filter((fact) => fact.grinderId === id).length,
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
    groups: bar.machines
      .flatMap((machine) => machine.groups)
      .flatMap(({ id }) => {
        const effect = knownOf(model, groupOf(id));
        const heard = shots.filter((fact) => fact.groupId === id).length;
        return effect && heard > 0 ? [{ id, offS: effect.mean * usualS, sdS: effect.sd * usualS, shots: heard }] : [];
      }),
  };
}

/** Newest traces of each group that are read for its drip. */
const DRIP_TRACES = 12;

/** What drips after the stop, by group, from its newest traces. */
async function dripsOf(db: DataSource, siteId: string): Promise<Learned['drips']> {
  const rows = await db.query<{ groupId: string; body: Pick<ShotBody, 'timeS' | 'trace'> }[]>(
    `SELECT h.id AS "groupId", s.body FROM group_head h CROSS JOIN LATERAL (
       SELECT jsonb_build_object('timeS', f.body->'timeS', 'trace', f.body->'trace') AS body, f.at FROM fact f
        WHERE f.site_id = h.site_id AND f.group_id = h.id AND f.kind = 'shot'
          AND jsonb_typeof(f.body->'trace') = 'object' AND NOT coalesce((f.body->>'partial')::boolean, false)
        ORDER BY f.at DESC LIMIT $2) s
      WHERE h.site_id = $1 ORDER BY h.id, s.at`,
    [siteId, DRIP_TRACES],
  );
  const byGroup = new Map<string, (number | null)[]>();
  for (const { groupId, body } of rows) {
    const { trace, timeS } = unpackedBody(body) as Pick<ShotBody, 'timeS' | 'trace'>;
    if (!trace?.massG.some((mass) => mass !== null)) continue;
    byGroup.set(groupId, [...(byGroup.get(groupId) ?? []), readTrace({ ...trace, pumpOffS: timeS }).afterDripG]);
  }
  return [...byGroup].map(([groupId, grams]) => ({ groupId, ...learnedDrip(grams) }));
}

async function shotFacts(db: DataSource, siteId: string, sinceMs: number): Promise<AnyFact[]> {
  const rows = await db.query<(Omit<AnyFact, 'at'> & { at: Date })[]>(
    `SELECT id, kind, at, grinder_id AS "grinderId", group_id AS "groupId", body - 'trace' AS body FROM fact
      WHERE site_id = $1 AND at >= $2 AND kind IN ('shot', 'purge', 'collarMove', 'newBag', 'correction')
      ORDER BY at, seq`,
    [siteId, new Date(sinceMs)],
  );
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }) as AnyFact);
}

/** Kilograms through the burrs: what was written down, and every bag that went into the hopper since that day. */
async function burrKg(db: DataSource, siteId: string): Promise<Map<string, number>> {
  const rows = await db.query<{ id: string; kg: number }[]>(
    `SELECT g.id, g.burr_kg + coalesce(sum(b.weight_g) / 1000, 0) AS kg
       FROM grinder g
       LEFT JOIN fact f ON f.grinder_id = g.id AND f.kind = 'newBag' AND g.burrs_on IS NOT NULL AND f.at >= g.burrs_on
       LEFT JOIN bag b ON b.id::text = f.body->>'bagId'
      WHERE g.site_id = $1 AND g.burr_kg IS NOT NULL GROUP BY g.id`,
    [siteId],
  );
  return new Map(rows.map(({ id, kg }) => [id, kg]));
}
