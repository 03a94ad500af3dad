import type {
  BasketSheet,
  CounterSheet,
  FixtureSheet,
  GrinderSheet,
  GroupSheet,
  MachineSheet,
  Place,
} from '@tempera/contract/bar';
import { EntitySchema } from 'typeorm';
import {
  bool,
  day,
  foreignKey,
  id,
  integer,
  json,
  keptColumns,
  nameInUse,
  placeColumns,
  real,
  siteColumn,
  text,
  uuid,
  type KeptRow,
} from '../kernel/entity.ts';

type Piece = KeptRow & Place;

export const MachineEntity = new EntitySchema<Piece & MachineSheet>({
  name: 'machine',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'machine_pk' },
    siteId: siteColumn('machine'),
    name: text(),
    ...placeColumns,
    boiler: { ...text(), default: 'exchanger' },
    gauges: json('gauges', { default: [] }),
    warmUpMin: { ...real('warm_up_min'), default: 25 },
    setsTemp: bool('sets_temp', { default: false }),
    setsPressure: bool('sets_pressure', { default: false }),
    lever: bool('lever', { default: false }),
    upkeep: json('upkeep', { default: [] }),
    ...keptColumns('machine'),
  },
  indices: [{ name: 'machine_site_ix', columns: ['siteId'] }, nameInUse('machine')],
});

export const BasketEntity = new EntitySchema<KeptRow & BasketSheet>({
  name: 'basket',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'basket_pk' },
    siteId: siteColumn('basket'),
    name: text(),
    minG: real('min_g'),
    maxG: real('max_g'),
    wall: text(),
    levelG: real('level_g', true),
    fillStepG: real('fill_step_g', true),
    ...keptColumns('basket'),
  },
  indices: [nameInUse('basket')],
});

export const GroupEntity = new EntitySchema<KeptRow & GroupSheet>({
  name: 'group_head',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'group_head_pk' },
    siteId: siteColumn('group_head'),
    machineId: uuid('machine_id', foreignKey('machine', 'group_head_machine_fk')),
    name: text(),
    position: integer('position'),
    buttons: json('buttons', { default: [] }),
    basketId: uuid('basket_id', { nullable: true, ...foreignKey('basket', 'group_head_basket_fk') }),
    cleanedOn: day('cleaned_on'),
    ...keptColumns('group_head'),
  },
  indices: [
    { name: 'group_head_site_ix', columns: ['siteId'] },
    { name: 'group_head_position_uq', columns: ['machineId', 'position'], unique: true, where: 'NOT retired' },
    nameInUse('group_head'),
  ],
});

export type GrinderRow = Piece & GrinderSheet & { firstCoffeeId: string | null };

export const GrinderEntity = new EntitySchema<GrinderRow>({
  name: 'grinder',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'grinder_pk' },
    siteId: siteColumn('grinder'),
    name: text(),
    ...placeColumns,
    stepped: bool('stepped', { default: true }),
    stepMarks: real('step_marks'),
    finer: text(),
    dialMin: real('dial_min'),
    dialMax: real('dial_max'),
    seedSetting: real('seed_setting'),
    secondsPerMark: real('seconds_per_mark', true),
    retentionG: real('retention_g', true),
    readsDial: bool('reads_dial', { default: true }),
    unlocksFirst: bool('unlocks_first', { default: false }),
    doser: { ...text(), default: 'direct' },
    rateGps: real('rate_gps', true),
    doseSingleS: real('dose_single_s', true),
    doseDoubleS: real('dose_double_s', true),
    burrKg: real('burr_kg', true),
    burrsOn: day('burrs_on'),
    burrLifeKg: real('burr_life_kg', true),
    /** What it held before its first bag was written down. */
    firstCoffeeId: uuid('first_coffee_id', { nullable: true, ...foreignKey('coffee', 'grinder_first_coffee_fk') }),
    ...keptColumns('grinder'),
  },
  indices: [nameInUse('grinder')],
});

export const FixtureEntity = new EntitySchema<Piece & FixtureSheet>({
  name: 'fixture',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'fixture_pk' },
    siteId: siteColumn('fixture'),
    kind: text(),
    name: text(),
    ...placeColumns,
    ...keptColumns('fixture'),
  },
  indices: [{ name: 'fixture_site_ix', columns: ['siteId'] }],
});

export const CounterEntity = new EntitySchema<Piece & CounterSheet>({
  name: 'counter',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'counter_pk' },
    siteId: siteColumn('counter'),
    name: { ...text(), default: 'Counter' },
    faces: text(),
    ...placeColumns,
    ...keptColumns('counter'),
  },
  indices: [{ name: 'counter_site_ix', columns: ['siteId'] }],
});

export const barEntities = [CounterEntity, MachineEntity, BasketEntity, GroupEntity, GrinderEntity, FixtureEntity];
