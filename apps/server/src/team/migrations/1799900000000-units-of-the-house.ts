import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The units of what hangs on the wall: whoever reads it has not signed in. */
export class UnitsOfTheHouse1799900000000 implements MigrationInterface {
  readonly name = 'UnitsOfTheHouse1799900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE site ADD COLUMN unit_school text NOT NULL DEFAULT 'metric'`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
