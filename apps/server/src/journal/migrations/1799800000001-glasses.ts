import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The few shots that were read off a glass are found among the many that were not. */
export class Glasses1799800000001 implements MigrationInterface {
  readonly name = 'Glasses1799800000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE INDEX fact_glass_ix ON fact (site_id, at) WHERE kind = 'shot' AND body ? 'glassMl'`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
