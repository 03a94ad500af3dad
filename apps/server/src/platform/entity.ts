import type { EntitySchemaColumnOptions } from 'typeorm';

/** Column helpers with explicit types, so that entities read as tables. */
export const id: EntitySchemaColumnOptions = { type: 'uuid', primary: true };
export const uuid = (name: string, more: Partial<EntitySchemaColumnOptions> = {}): EntitySchemaColumnOptions => ({
  type: 'uuid',
  name,
  ...more,
});
export const text = (name?: string): EntitySchemaColumnOptions => ({ type: 'text', ...(name ? { name } : {}) });
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
