import type { DaySummary } from '@tempera/core/day';
import { EntitySchema } from 'typeorm';
import { foreignKey, real, siteColumn, text } from '../kernel/entity.ts';

/** A day of a grinder as core made it: nothing here that its facts do not say. */
interface DaySummaryRow {
  grinderId: string;
  day: string;
  siteId: string;
  /** Up to which place in the order facts were heard for it. */
  heardSeq: number;
  summary: DaySummary;
}

const DaySummaryEntity = new EntitySchema<DaySummaryRow>({
  name: 'day_summary',
  columns: {
    grinderId: {
      type: 'uuid',
      primary: true,
      name: 'grinder_id',
      primaryKeyConstraintName: 'day_summary_pk',
      ...foreignKey('grinder', 'day_summary_grinder_fk'),
    },
    day: { ...text(), primary: true, primaryKeyConstraintName: 'day_summary_pk' },
    siteId: siteColumn('day_summary'),
    heardSeq: real('heard_seq'),
    summary: { type: 'jsonb' },
  },
});

/** How far the days of a grinder were made, and with what. */
interface DaysMadeRow {
  grinderId: string;
  siteId: string;
  heardSeq: number;
  madeWith: string;
}

const DaysMadeEntity = new EntitySchema<DaysMadeRow>({
  name: 'days_made',
  columns: {
    grinderId: {
      type: 'uuid',
      primary: true,
      name: 'grinder_id',
      primaryKeyConstraintName: 'days_made_pk',
      ...foreignKey('grinder', 'days_made_grinder_fk'),
    },
    siteId: siteColumn('days_made'),
    heardSeq: real('heard_seq'),
    madeWith: { ...text(), name: 'made_with' },
  },
});

export const dayEntities = [DaySummaryEntity, DaysMadeEntity];
