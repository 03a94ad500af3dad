import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What fingers and eyes tell of grounds is evidence too. */
export class WhatIsSeen1798200000003 implements MigrationInterface {
  readonly name = 'WhatIsSeen1798200000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
DROP INDEX fact_heard_ix;
CREATE INDEX fact_heard_ix ON fact (site_id, (LEAST(at, received_at)), id)
  WHERE kind IN ('shot', 'purge', 'collarMove', 'newBag', 'dose', 'seen')
     OR (kind = 'step' AND body->>'step' = 'doseTime');
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
