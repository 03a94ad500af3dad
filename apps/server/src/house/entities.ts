import type { RecipeVersion } from '@tempera/contract/house';
import type { HousePolicy } from '@tempera/core/calibration';
import { EntitySchema } from 'typeorm';
import { foreignKey, id, instant, integer, real, siteColumn, text, uuid } from '../platform/entity.ts';

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

export type PolicyVersionRow = HousePolicy & {
  id: string;
  siteId: string;
  version: number;
  reason: string | null;
  personId: string | null;
  changedAt: Date;
};

export const PolicyVersionEntity = new EntitySchema<PolicyVersionRow>({
  name: 'policy_version',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'policy_version_pk' },
    siteId: siteColumn('policy_version'),
    version: integer('version'),
    sureness: real('sureness'),
    risk: real('risk'),
    lockRule: text('lock_rule'),
    trim: text(),
    longestCheckMin: real('longest_check_min'),
    reason: { ...text(), nullable: true },
    personId: uuid('person_id', { nullable: true, ...foreignKey('person', 'policy_version_person_fk') }),
    changedAt: instant('changed_at', { default: () => 'now()' }),
  },
  uniques: [{ name: 'policy_version_uq', columns: ['siteId', 'version'] }],
});

export const houseEntities = [RecipeVersionEntity, PolicyVersionEntity];
