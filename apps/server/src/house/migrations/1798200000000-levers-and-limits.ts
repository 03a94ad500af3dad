import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A dose that must not be more; a lever’s shape of pressure; a tamp that is weighed. */
export class LeversAndLimits1798200000000 implements MigrationInterface {
  readonly name = 'LeversAndLimits1798200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE recipe_version ADD COLUMN dose_no_more boolean NOT NULL DEFAULT false,
  ADD COLUMN pressure_shape text NOT NULL DEFAULT '', ADD COLUMN tamp_g double precision;
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
