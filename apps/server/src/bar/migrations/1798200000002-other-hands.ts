import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Baskets that are struck level, collars that show no number, automats, levers. */
export class OtherHands1798200000002 implements MigrationInterface {
  readonly name = 'OtherHands1798200000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE basket ADD COLUMN level_g double precision, ADD COLUMN fill_step_g double precision;
ALTER TABLE grinder ADD COLUMN reads_dial boolean NOT NULL DEFAULT true,
  ADD COLUMN unlocks_first boolean NOT NULL DEFAULT false, ADD COLUMN doser text NOT NULL DEFAULT 'direct';
ALTER TABLE machine ADD COLUMN lever boolean NOT NULL DEFAULT false;
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
