import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What takes a step back is found among the few that do so. Of an index over every step the planner knows only that nearly all of them
 * take nothing back, and may go through the steps of years instead.
 */
export class WhatTakesBack1799900000009 implements MigrationInterface {
  readonly name = 'WhatTakesBack1799900000009';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
DROP INDEX fact_takes_back_ix;
CREATE INDEX fact_takes_back_ix ON fact ((body->>'takesBack')) WHERE kind = 'step' AND body->>'step' = 'takenBack';
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
