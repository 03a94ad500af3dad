import type { EntitySchemaColumnOptions } from 'typeorm';

/** Column helpers with explicit types, so that entities read as tables. */
export const id: EntitySchemaColumnOptions = { type: 'uuid', primary: true };
export const uuid = (name: string, more: Partial<EntitySchemaColumnOptions> = {}): EntitySchemaColumnOptions => ({
  type: 'uuid',
  name,
  ...more,
});
export const text = (name?: string, more: Partial<EntitySchemaColumnOptions> = {}): EntitySchemaColumnOptions => ({
  type: 'text',
  ...(name ? { name } : {}),
  ...more,
});
export const real = (name: string, nullable = false): EntitySchemaColumnOptions => ({
  type: 'double precision',
  name,
  nullable,
});
export const integer = (name: string, more: Partial<EntitySchemaColumnOptions> = {}): EntitySchemaColumnOptions => ({
  type: 'integer',
  name,
  ...more,
});
export const bool = (name: string, more: Partial<EntitySchemaColumnOptions> = {}): EntitySchemaColumnOptions => ({
  type: 'boolean',
  name,
  ...more,
});
export const json = (name: string, more: Partial<EntitySchemaColumnOptions> = {}): EntitySchemaColumnOptions => ({
  type: 'jsonb',
  name,
  ...more,
});
/** A calendar day, YYYY-MM-DD on both sides. */
export const day = (name: string, more: Partial<EntitySchemaColumnOptions> = {}): EntitySchemaColumnOptions => ({
  type: 'date',
  name,
  nullable: true,
  ...more,
});
export const instant = (name: string, more: Partial<EntitySchemaColumnOptions> = {}): EntitySchemaColumnOptions => ({
  type: 'timestamp with time zone',
  name,
  ...more,
});

/** The foreign key of a column, named as in the migrations. */
export const foreignKey = (target: string, name: string) => ({
  foreignKey: { target, name },
});

/** The place of a piece on the counter. */
export const placeColumns = {
  xCm: real('x_cm'),
  yCm: real('y_cm'),
  widthCm: real('width_cm'),
  depthCm: real('depth_cm'),
};

export const siteColumn = (table: string): EntitySchemaColumnOptions =>
  uuid('site_id', foreignKey('site', `${table}_site_fk`));

/** What every sheet carries beside what it says. */
export interface KeptRow {
  id: string;
  siteId: string;
  revision: number;
  retired: boolean;
  changedBy: string | null;
  changedAt: Date | null;
}

/** The columns of a sheet's keeping. */
export const keptColumns = (table: string) => ({
  revision: integer('revision', { default: 1 }),
  retired: bool('retired', { default: false }),
  changedBy: uuid('changed_by', { nullable: true, ...foreignKey('person', `${table}_changed_by_fk`) }),
  changedAt: instant('changed_at', { nullable: true }),
});

/** One name among those in use. */
export const nameInUse = (table: string) => ({
  name: `${table}_name_uq`,
  columns: ['siteId', 'name'],
  unique: true,
  where: 'NOT retired',
});
