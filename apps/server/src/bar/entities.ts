import type { Counter, Fixture, Place } from '@tempera/contract/bar';
import { EntitySchema } from 'typeorm';
import { foreignKey, id, integer, placeColumns, real, siteColumn, text, uuid } from '../platform/entity.ts';

export interface MachineRow extends Place {
  id: string;
  siteId: string;
  name: string;
}

export const MachineEntity = new EntitySchema<MachineRow>({
  name: 'machine',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'machine_pk' },
    siteId: siteColumn('machine'),
    name: text(),
    ...placeColumns,
  },
  indices: [{ name: 'machine_site_ix', columns: ['siteId'] }],
});

export interface GroupRow {
  id: string;
  siteId: string;
  machineId: string;
  name: string;
  position: number;
}

export const GroupEntity = new EntitySchema<GroupRow>({
  name: 'group_head',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'group_head_pk' },
    siteId: siteColumn('group_head'),
    machineId: uuid('machine_id', foreignKey('machine', 'group_head_machine_fk')),
    name: text(),
    position: integer('position'),
  },
  uniques: [{ name: 'group_head_position_uq', columns: ['machineId', 'position'] }],
  indices: [{ name: 'group_head_site_ix', columns: ['siteId'] }],
});

export interface GrinderRow extends Place {
  id: string;
  siteId: string;
  name: string;
  stepMarks: number;
  finer: 'down' | 'up';
  dialMin: number;
  dialMax: number;
  seedSetting: number;
  secondsPerMark: number | null;
  retentionG: number | null;
  rateGps: number | null;
  coffee: string;
  recipeVersionId: string;
}

export const GrinderEntity = new EntitySchema<GrinderRow>({
  name: 'grinder',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'grinder_pk' },
    siteId: siteColumn('grinder'),
    name: text(),
    ...placeColumns,
    stepMarks: real('step_marks'),
    finer: text(),
    dialMin: real('dial_min'),
    dialMax: real('dial_max'),
    seedSetting: real('seed_setting'),
    secondsPerMark: real('seconds_per_mark', true),
    retentionG: real('retention_g', true),
    rateGps: real('rate_gps', true),
    coffee: text(),
    recipeVersionId: uuid('recipe_version_id', foreignKey('recipe_version', 'grinder_recipe_version_fk')),
  },
  uniques: [{ name: 'grinder_name_uq', columns: ['siteId', 'name'] }],
});

export interface FixtureRow extends Place {
  id: string;
  siteId: string;
  kind: Fixture['kind'];
  name: string;
}

export const FixtureEntity = new EntitySchema<FixtureRow>({
  name: 'fixture',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'fixture_pk' },
    siteId: siteColumn('fixture'),
    kind: text(),
    name: text(),
    ...placeColumns,
  },
  indices: [{ name: 'fixture_site_ix', columns: ['siteId'] }],
});

export interface CounterRow extends Place {
  id: string;
  siteId: string;
  faces: Counter['faces'];
}

export const CounterEntity = new EntitySchema<CounterRow>({
  name: 'counter',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'counter_pk' },
    siteId: siteColumn('counter'),
    faces: text(),
    ...placeColumns,
  },
  indices: [{ name: 'counter_site_ix', columns: ['siteId'] }],
});

export const barEntities = [CounterEntity, MachineEntity, GroupEntity, GrinderEntity, FixtureEntity];
