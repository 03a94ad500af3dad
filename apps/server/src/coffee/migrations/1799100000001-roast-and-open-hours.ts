import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How dark a coffee was roasted, and how long it keeps once it is open. */
export class RoastAndOpenHours1799100000001 implements MigrationInterface {
  readonly name = 'RoastAndOpenHours1799100000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE coffee ADD COLUMN roast text NOT NULL DEFAULT 'medium',
  ADD COLUMN open_best_h double precision NOT NULL DEFAULT 12,
  ADD COLUMN open_stale_h double precision NOT NULL DEFAULT 16;
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
