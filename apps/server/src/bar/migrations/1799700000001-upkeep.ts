import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is kept up at a machine, and how long burrs last; when it was done are facts, few and read over years. */
export class Upkeep1799700000001 implements MigrationInterface {
  readonly name = 'Upkeep1799700000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE machine ADD COLUMN upkeep jsonb NOT NULL DEFAULT '[]';
ALTER TABLE grinder ADD COLUMN burr_life_kg double precision;
CREATE INDEX fact_upkept_ix ON fact (site_id, at) WHERE kind = 'step' AND body->>'step' = 'upkept';
CREATE INDEX fact_closing_ix ON fact (site_id, at) WHERE kind = 'step' AND body->>'step' = 'planned' AND body->>'run' = 'closing';
DROP INDEX fact_heard_ix;
CREATE INDEX fact_heard_ix ON fact (site_id, (LEAST(at, received_at)), id)
  WHERE kind IN ('shot', 'purge', 'collarMove', 'newBag', 'dose', 'seen')
     OR (kind = 'step' AND body->>'step' IN ('doseTime', 'happened', 'upkept'));
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
