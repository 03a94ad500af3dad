import type { DrinkSheet, RecipeVersion } from '@tempera/contract/house';
import type { HousePolicy } from '@tempera/contract/policy';
import { EntitySchema } from 'typeorm';
import {
  bool,
  day,
  foreignKey,
  id,
  instant,
  integer,
  json,
  keptColumns,
  nameInUse,
  real,
  siteColumn,
  text,
  uuid,
  type KeptRow,
} from '../kernel/entity.ts';

export type RecipeVersionRow = Omit<RecipeVersion, 'approvedBy' | 'writtenAt'> & {
  siteId: string;
  approvedBy: string | null;
  writtenAt: Date;
};

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
    doseNoMore: bool('dose_no_more', { default: false }),
    yieldG: real('yield_g'),
    yieldToleranceG: real('yield_tolerance_g'),
    timeFrom: { ...text('time_from'), default: 'pump' },
    timeMinS: real('time_min_s'),
    timeMaxS: real('time_max_s'),
    firstDropMinS: real('first_drop_min_s'),
    firstDropMaxS: real('first_drop_max_s'),
    soakS: { ...real('soak_s'), default: 0 },
    pauseS: { ...real('pause_s'), default: 0 },
    pressureBar: real('pressure_bar', true),
    pressureShape: { ...text('pressure_shape'), default: '' },
    tampG: real('tamp_g', true),
    tempC: real('temp_c', true),
    basketId: uuid('basket_id', { nullable: true, ...foreignKey('basket', 'recipe_version_basket_fk') }),
    taste: json('taste', { nullable: true }),
    prepSteps: json('prep_steps', { default: [] }),
    roaster: json('roaster', { nullable: true }),
    retired: bool('retired', { default: false }),
    reason: { ...text(), nullable: true },
    validFrom: day('valid_from', { nullable: false, default: '2000-01-01' }),
    approvedBy: uuid('approved_by', { nullable: true, ...foreignKey('person', 'recipe_version_approved_by_fk') }),
    writtenAt: instant('written_at', { default: () => 'now()' }),
  },
  uniques: [{ name: 'recipe_version_uq', columns: ['recipeId', 'version'] }],
  indices: [{ name: 'recipe_version_site_ix', columns: ['siteId', 'recipeId', 'version'] }],
  checks: [
    {
      name: 'recipe_version_window_ck',
      expression: 'time_min_s < time_max_s AND first_drop_min_s < first_drop_max_s',
    },
  ],
});

export const DrinkEntity = new EntitySchema<KeptRow & DrinkSheet>({
  name: 'drink',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'drink_pk' },
    siteId: siteColumn('drink'),
    name: text(),
    recipeId: uuid('recipe_id'),
    share: real('share'),
    baskets: real('baskets'),
    milkMl: real('milk_ml'),
    foamMm: real('foam_mm'),
    milkTempC: real('milk_temp_c'),
    waterMl: real('water_ml'),
    waterFirst: bool('water_first'),
    orders: real('orders'),
    position: integer('position'),
    ...keptColumns('drink'),
  },
  indices: [nameInUse('drink')],
});

export interface PolicyVersionRow {
  id: string;
  siteId: string;
  version: number;
  /** One key a policy; a policy that is younger than the row is not among them. */
  choices: Partial<HousePolicy>;
  reason: string | null;
  personId: string | null;
  changedAt: Date;
}

export const PolicyVersionEntity = new EntitySchema<PolicyVersionRow>({
  name: 'policy_version',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'policy_version_pk' },
    siteId: siteColumn('policy_version'),
    version: integer('version'),
    choices: json('choices'),
    reason: { ...text(), nullable: true },
    personId: uuid('person_id', { nullable: true, ...foreignKey('person', 'policy_version_person_fk') }),
    changedAt: instant('changed_at', { default: () => 'now()' }),
  },
  uniques: [{ name: 'policy_version_uq', columns: ['siteId', 'version'] }],
});

export const houseEntities = [RecipeVersionEntity, PolicyVersionEntity, DrinkEntity];
