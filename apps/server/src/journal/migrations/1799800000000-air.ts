import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The room's air is evidence too. */
export class Air1799800000000 implements MigrationInterface {
  readonly name = 'Air1799800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
DROP INDEX fact_heard_ix;
CREATE INDEX fact_heard_ix ON fact (site_id, (LEAST(at, received_at)), id)
  WHERE kind IN ('shot', 'purge', 'collarMove', 'newBag', 'dose', 'seen')
     OR (kind = 'step' AND body->>'step' IN ('doseTime', 'happened', 'air', 'upkept'));
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
