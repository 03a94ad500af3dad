import type { RecipeVersion } from '@tempera/contract/house';
import { targetOf } from '@tempera/contract/station';
import type { RecipeTarget } from '@tempera/core/calibration';
import { businessDay, type TimedRecipe } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { SiteEntity } from '../team/index.ts';
import type { RecipeVersionRow } from './entities.ts';

/** The columns of a recipe version as the wire names them; days as text, the approver by name. */
export const RECIPE_COLUMNS = `
  v.id, v.recipe_id AS "recipeId", v.version, v.name, v.dose_g AS "doseG", v.dose_tolerance_g AS "doseToleranceG",
  v.dose_no_more AS "doseNoMore", v.pressure_shape AS "pressureShape", v.tamp_g AS "tampG",
  v.yield_g AS "yieldG", v.yield_tolerance_g AS "yieldToleranceG", v.time_from AS "timeFrom",
  v.time_min_s AS "timeMinS", v.time_max_s AS "timeMaxS", v.first_drop_min_s AS "firstDropMinS",
  v.first_drop_max_s AS "firstDropMaxS", v.soak_s AS "soakS", v.pause_s AS "pauseS", v.pressure_bar AS "pressureBar",
  v.temp_c AS "tempC", v.basket_id AS "basketId", v.taste, v.prep_steps AS "prepSteps", v.roaster, v.retired, v.reason,
  v.valid_from::text AS "validFrom", p.name AS "approvedBy", v.written_at AS "writtenAt"`;

/** A version of a recipe as a query gives it. */
export type RecipeRow = Omit<RecipeVersionRow, 'siteId'>;

/** The wire form of it. */
export const toVersion = (row: RecipeRow): RecipeVersion => ({ ...row, writtenAt: row.writtenAt.toISOString() });

/** Today by the café's own business day. */
export async function todayAt(db: DataSource, siteId: string, nowMs = Date.now()): Promise<string> {
  const { timeZone, dayStartsMin } = await db.getRepository(SiteEntity).findOneByOrFail({ id: siteId });
  return businessDay(nowMs, timeZone, dayStartsMin);
}

/** The version of every recipe that is in force: the newest whose day has come. Retired ones are left out. */
export async function recipesInForce(db: DataSource, siteId: string, today: string): Promise<RecipeVersion[]> {
  const rows = await db.query<RecipeRow[]>(
    `SELECT ${RECIPE_COLUMNS} FROM (
       SELECT DISTINCT ON (recipe_id) * FROM recipe_version
        WHERE site_id = $1 AND valid_from <= $2 ORDER BY recipe_id, version DESC) v
       LEFT JOIN person p ON p.id = v.approved_by
      WHERE NOT v.retired ORDER BY v.name`,
    [siteId, today],
  );
  return rows.map(toVersion);
}

/** These versions of recipes, in force or not. */
export async function recipeVersions(db: DataSource, siteId: string, ids: readonly string[]): Promise<RecipeVersion[]> {
  const rows = await db.query<RecipeRow[]>(
    `SELECT ${RECIPE_COLUMNS} FROM recipe_version v LEFT JOIN person p ON p.id = v.approved_by
      WHERE v.site_id = $1 AND v.id = ANY($2)`,
    [siteId, ids],
  );
  return rows.map(toVersion);
}

const targets = new Map<string, Map<string, RecipeTarget>>();

/** What every version of every recipe aims at. Versions are never changed, so only new ones are read again. */
export async function recipeTargets(db: DataSource, siteId: string): Promise<ReadonlyMap<string, RecipeTarget>> {
  const known = targets.get(siteId) ?? new Map<string, RecipeTarget>();
  targets.set(siteId, known);
  const rows = await db.query<
    (TimedRecipe & Pick<RecipeVersion, 'id' | 'recipeId' | 'doseG' | 'yieldG' | 'doseToleranceG' | 'doseNoMore'>)[]
  >(
    `SELECT id, recipe_id AS "recipeId", dose_no_more AS "doseNoMore", dose_g AS "doseG", yield_g AS "yieldG", dose_tolerance_g AS "doseToleranceG", time_from AS "timeFrom",
            time_min_s AS "timeMinS", time_max_s AS "timeMaxS", first_drop_min_s AS "firstDropMinS",
            first_drop_max_s AS "firstDropMaxS", soak_s AS "soakS", pause_s AS "pauseS"
       FROM recipe_version WHERE site_id = $1 AND NOT (id = ANY($2))`,
    [siteId, [...known.keys()]],
  );
  for (const row of rows) known.set(row.id, targetOf(row));
  return known;
}
