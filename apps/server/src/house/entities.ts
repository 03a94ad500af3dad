import type { RecipeVersion } from '@tempera/contract/house';
import { EntitySchema } from 'typeorm';
import { id, integer, real, siteColumn, text, uuid } from '../platform/entity.ts';

export type RecipeVersionRow = RecipeVersion & { siteId: string };

export const RecipeVersionEntity = new EntitySchema<RecipeVersionRow>({
  name: 'recipe_version',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'recipe_version_pk' },
    siteId: siteColumn('recipe_version'),
    recipeId: uuid('recipe_id'),
    name: text(),
    version: integer('version'),
    doseG: real('dose_g'),
    doseToleranceG: real('dose_tolerance_g'),
    yieldG: real('yield_g'),
    yieldToleranceG: real('yield_tolerance_g'),
    timeMinS: real('time_min_s'),
    timeMaxS: real('time_max_s'),
    firstDropMinS: real('first_drop_min_s'),
    firstDropMaxS: real('first_drop_max_s'),
  },
  uniques: [{ name: 'recipe_version_uq', columns: ['recipeId', 'version'] }],
  checks: [
    {
      name: 'recipe_version_window_ck',
      expression: 'time_min_s < time_max_s AND first_drop_min_s < first_drop_max_s',
    },
  ],
});

export const houseEntities = [RecipeVersionEntity];
