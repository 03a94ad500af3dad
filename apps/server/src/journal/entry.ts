import type { JournalEntry } from '@tempera/contract/journal';
import { pumpWindowS, type TimedRecipe } from '@tempera/core/house';
import { In, type DataSource } from 'typeorm';
import { problem } from '../kernel/problems.ts';
import { unconfirmedAmong } from './unconfirmed.ts';
import { FactEntity, type FactRow } from './entities.ts';
import { relatedFacts, toRecorded, withoutTrace } from './service.ts';

/** One entry of this café with its trace, and what belongs to it. @throws ProblemError notFound */
export async function journalEntry(db: DataSource, siteId: string, id: string): Promise<JournalEntry> {
  const row = await db.getRepository(FactEntity).findOneBy({ id, siteId });
  if (!row) throw problem('notFound');
  const { shotIds = [] } = row.body as { shotIds?: string[] };
  const lockedBy = await db.getRepository(FactEntity).findBy({ id: In(shotIds), siteId });
  const related = [...lockedBy, ...(await relatedFacts(db, siteId, [row]))];
  const [unconfirmed] = await unconfirmedAmong(db, [id]);
  return {
    fact: toRecorded(row),
    related: related.map(withoutTrace),
    ...(unconfirmed && { unconfirmedFrom: unconfirmed.tablet }),
    gate: await gateOf(db, row),
  };
}

type WrittenRecipe = TimedRecipe & { name: string; version: number; doseG: number; yieldG: number };

/** What a shot or a lock was aimed at; null for whatever names no recipe. */
async function gateOf(db: DataSource, { body, siteId }: FactRow): Promise<JournalEntry['gate']> {
  const { recipeVersionId } = body as { recipeVersionId?: string };
  if (recipeVersionId === undefined) return null;
  const [recipe] = await db.query<WrittenRecipe[]>(
    `SELECT name, version, dose_g AS "doseG", yield_g AS "yieldG", time_min_s AS "timeMinS", time_max_s AS "timeMaxS",
            time_from AS "timeFrom", first_drop_min_s AS "firstDropMinS", first_drop_max_s AS "firstDropMaxS",
            soak_s AS "soakS", pause_s AS "pauseS"
       FROM recipe_version WHERE id = $1 AND site_id = $2`,
    [recipeVersionId, siteId],
  );
  if (!recipe) return null;
  const { name, version, doseG, yieldG } = recipe;
  const { min, max } = pumpWindowS(recipe);
  return { recipe: name, version, doseG, yieldG, timeMinS: min, timeMaxS: max };
}
