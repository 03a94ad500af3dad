import type { RecipeChange, RecipeHistory, RecipesQuery, RecipeVersion } from '@tempera/contract/house';
import type { Page } from '@tempera/contract/sheet';
import type { Session } from '@tempera/contract/team';
import { isDeepStrictEqual } from 'node:util';
import { Not, type DataSource, type EntityManager } from 'typeorm';
import { problem } from '../kernel/problems.ts';
import { mustBeOurs } from '../kernel/sheets.ts';
import { RecipeVersionEntity } from './entities.ts';
import { RECIPE_COLUMNS, todayAt, toVersion, type RecipeRow } from './inForce.ts';

const sortColumns: Record<RecipesQuery['sort'], string> = {
  name: 'lower(v.name)',
  doseG: 'v.dose_g',
  yieldG: 'v.yield_g',
  writtenAt: 'v.written_at',
};

/** Escapes what a pattern would read as its own. */
const asPattern = (search: string): string => `%${search.replace(/[\\%_]/g, '\\$&')}%`;

/** A page of the house's recipes, each in its newest version that is in force, or will be. */
export async function recipePage(db: DataSource, siteId: string, query: RecipesQuery): Promise<Page<RecipeVersion>> {
  const { search, sort, descending, page, perPage, retired } = query;
  const today = await todayAt(db, siteId);
  const rows = await db.query<(RecipeRow & { total: string })[]>(
    `SELECT ${RECIPE_COLUMNS}, count(*) OVER () AS total FROM (
       SELECT DISTINCT ON (recipe_id) * FROM recipe_version
        WHERE site_id = $1 ORDER BY recipe_id, (valid_from <= $2) DESC, version DESC) v
       LEFT JOIN person p ON p.id = v.approved_by
      WHERE v.retired = $3 AND v.name ILIKE $4
      ORDER BY ${sortColumns[sort]} ${descending ? 'DESC' : 'ASC'}, v.recipe_id LIMIT $5 OFFSET $6`,
    [siteId, today, retired, asPattern(search), perPage, (page - 1) * perPage],
  );
  return { rows: rows.map(({ total: _total, ...row }) => toVersion(row)), total: Number(rows[0]?.total ?? 0) };
}

/** Every version of a recipe, newest first. @throws ProblemError notFound */
export async function recipeHistory(db: DataSource, siteId: string, recipeId: string): Promise<RecipeHistory> {
  const rows = await db.query<RecipeRow[]>(
    `SELECT ${RECIPE_COLUMNS} FROM recipe_version v LEFT JOIN person p ON p.id = v.approved_by
      WHERE v.site_id = $1 AND v.recipe_id = $2 ORDER BY v.version DESC`,
    [siteId, recipeId],
  );
  if (rows.length === 0) throw problem('notFound');
  const today = await todayAt(db, siteId);
  const versions = rows.map(toVersion);
  const inForce = versions.find(({ validFrom }) => validFrom <= today) ?? versions.at(-1);
  return { versions, inForce: inForce?.version ?? 1 };
}

/**
 * Writes the next version of a recipe, or the first of a new one. The same change sent twice is answered as done.
 * @throws ProblemError unknownPart; changedMeanwhile when somebody else was faster
 */
export async function writeRecipe(
  db: DataSource,
  session: Session,
  recipeId: string,
  change: RecipeChange,
): Promise<RecipeHistory> {
  const siteId = session.site.id;
  const { id, basedOn, reason, validFrom, recipe } = change;
  await mustBeOurs(db.manager, siteId, 'basket', recipe.basketId);
  const versions = db.getRepository(RecipeVersionEntity);
  if (await versions.existsBy({ recipeId, siteId: Not(siteId) })) throw problem('notFound');
  const newest = (await versions.maximum('version', { recipeId })) ?? 0;
  if (newest === basedOn) {
    // Two who are based on the same version write the same number: the table lets one of them in.
    await versions
      .createQueryBuilder()
      .insert()
      .values({
        ...recipe,
        id,
        siteId,
        recipeId,
        version: basedOn + 1,
        reason,
        validFrom,
        approvedBy: session.person.id,
        writtenAt: new Date(),
      })
      .orIgnore()
      .execute();
  }
  const history = await recipeHistory(db, siteId, recipeId);
  if (!history.versions.some((version) => version.id === id && isSame(version, change)))
    throw problem('changedMeanwhile');
  return history;
}

/** An answer got lost, and the same version is sent again. */
function isSame(version: RecipeVersion, { recipe, reason, validFrom }: RecipeChange): boolean {
  const kept = Object.fromEntries(Object.keys(recipe).map((key) => [key, version[key as keyof RecipeVersion]]));
  return version.reason === reason && version.validFrom === validFrom && isDeepStrictEqual(kept, { ...recipe });
}

/** Refuses what names a recipe that this café does not have. @throws ProblemError unknownPart */
export async function recipeMustBeOurs(tx: EntityManager, siteId: string, recipeId: string | null): Promise<void> {
  if (recipeId === null) return;
  if (!(await tx.getRepository(RecipeVersionEntity).existsBy({ recipeId, siteId }))) throw problem('unknownPart');
}
