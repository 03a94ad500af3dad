import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Weekdays of other hours, holidays, and who is in when. */
export class Calendar1799700000002 implements MigrationInterface {
  readonly name = 'Calendar1799700000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE site ADD COLUMN week jsonb NOT NULL DEFAULT '[]', ADD COLUMN exceptions jsonb NOT NULL DEFAULT '[]',
  ADD COLUMN shifts jsonb NOT NULL DEFAULT '[]';
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
