import type { FactKind } from '@tempera/core/facts';
import { EntitySchema } from 'typeorm';
import { foreignKey, id, instant, real, siteColumn, text, uuid } from '../kernel/entity.ts';

export interface FactRow {
  id: string;
  seq: number;
  siteId: string;
  kind: FactKind | 'step';
  at: Date;
  receivedAt: Date;
  personId: string;
  /** Null for what is done to the bar itself. */
  grinderId: string | null;
  groupId: string | null;
  body: object;
  /** What the device's clock said; null in facts from before clocks were measured: `at` is that. */
  deviceAt: Date | null;
  skewMs: number | null;
  clock: 'ahead' | 'early' | null;
  /** Who said yes to it, where its author may not write it alone. */
  approvedBy: string | null;
}

/** bigint arrives as a string; a journal will not outgrow 2^53 entries. */
const asNumber = { from: (value: string) => Number(value), to: (value: number) => value };

export const FactEntity = new EntitySchema<FactRow>({
  name: 'fact',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'fact_pk' },
    seq: { type: 'bigint', generated: 'increment', transformer: asNumber },
    siteId: siteColumn('fact'),
    kind: text(),
    at: instant('at'),
    receivedAt: instant('received_at', { default: () => 'now()' }),
    personId: uuid('person_id', foreignKey('person', 'fact_person_fk')),
    grinderId: uuid('grinder_id', { nullable: true, ...foreignKey('grinder', 'fact_grinder_fk') }),
    groupId: uuid('group_id', { nullable: true, ...foreignKey('group_head', 'fact_group_fk') }),
    body: { type: 'jsonb' },
    deviceAt: instant('device_at', { nullable: true }),
    skewMs: real('skew_ms', true),
    clock: { ...text(), nullable: true },
    approvedBy: uuid('approved_by', { nullable: true, ...foreignKey('person', 'fact_approved_by_fk') }),
  },
  uniques: [{ name: 'fact_seq_uq', columns: ['seq'] }],
  checks: [
    { name: 'fact_station_ck', expression: "grinder_id IS NOT NULL OR kind = 'step'" },
    { name: 'fact_clock_ck', expression: "clock IN ('ahead', 'early')" },
  ],
  indices: [
    { name: 'fact_site_seq_ix', columns: ['siteId', 'seq'] },
    { name: 'fact_grinder_seq_ix', columns: ['grinderId', 'seq'] },
    { name: 'fact_grinder_at_ix', columns: ['grinderId', 'at'] },
    { name: 'fact_group_seq_ix', columns: ['groupId', 'seq'] },
    { name: 'fact_kind_seq_ix', columns: ['siteId', 'kind', 'seq'] },
    { name: 'fact_person_seq_ix', columns: ['personId', 'seq'] },
    { name: 'fact_lock_ix', columns: ['grinderId', 'at'], where: "kind = 'lock'" },
    { name: 'fact_bag_ix', columns: ['grinderId', 'at'], where: "kind = 'newBag'" },
    { name: 'fact_site_at_ix', columns: ['siteId', 'at'] },
    { name: 'fact_step_ix', columns: ['siteId', 'at'], where: "kind = 'step'" },
    // Indexes on an expression cannot be told to the ORM; the migrations keep them.
    { name: 'fact_corrects_ix', synchronize: false },
    { name: 'fact_hopper_ix', synchronize: false },
    { name: 'fact_heard_ix', synchronize: false },
    { name: 'fact_takes_back_ix', synchronize: false },
    { name: 'fact_step_grinder_ix', synchronize: false },
    { name: 'fact_step_group_ix', synchronize: false },
    { name: 'fact_upkept_ix', synchronize: false },
    { name: 'fact_closing_ix', synchronize: false },
    { name: 'fact_traced_ix', synchronize: false },
    { name: 'fact_glass_ix', synchronize: false },
  ],
});

/** Facts that a correction has withdrawn, for queries that must select what stands. */
const WithdrawnEntity = new EntitySchema<{ factId: string; siteId: string }>({
  name: 'withdrawn',
  columns: {
    factId: { type: 'uuid', primary: true, name: 'fact_id', primaryKeyConstraintName: 'withdrawn_pk' },
    siteId: siteColumn('withdrawn'),
  },
});

/** Facts that a tablet told by their author's name alone. */
const ToldByNameEntity = new EntitySchema<{
  factId: string;
  siteId: string;
  deviceId: string;
  confirmedAt: Date | null;
}>({
  name: 'told_by_name',
  columns: {
    factId: { type: 'uuid', primary: true, name: 'fact_id', primaryKeyConstraintName: 'told_by_name_pk' },
    siteId: siteColumn('told_by_name'),
    deviceId: uuid('device_id', foreignKey('device', 'told_by_name_device_fk')),
    confirmedAt: instant('confirmed_at', { nullable: true }),
  },
});

export const journalEntities = [FactEntity, WithdrawnEntity, ToldByNameEntity];
