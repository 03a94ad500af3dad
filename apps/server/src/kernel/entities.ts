import type { SheetKind } from '@tempera/contract/sheetPaths';
import { EntitySchema } from 'typeorm';
import { bool, foreignKey, id, instant, integer, json, siteColumn, text, uuid } from './entity.ts';

/** Every revision of every sheet, and of the plan. */
export interface SheetVersionRow {
  id: string;
  siteId: string;
  kind: SheetKind | 'plan';
  subjectId: string;
  revision: number;
  retired: boolean;
  changedBy: string;
  changedAt: Date;
  sheet: Record<string, unknown>;
}

export const SheetVersionEntity = new EntitySchema<SheetVersionRow>({
  name: 'sheet_version',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'sheet_version_pk' },
    siteId: siteColumn('sheet_version'),
    kind: text(),
    subjectId: uuid('subject_id'),
    revision: integer('revision'),
    retired: bool('retired'),
    changedBy: uuid('changed_by', foreignKey('person', 'sheet_version_changed_by_fk')),
    changedAt: instant('changed_at', { default: () => 'now()' }),
    sheet: json('sheet'),
  },
  indices: [{ name: 'sheet_version_site_ix', columns: ['siteId', 'changedAt'] }],
  uniques: [{ name: 'sheet_version_uq', columns: ['subjectId', 'kind', 'revision'] }],
});
