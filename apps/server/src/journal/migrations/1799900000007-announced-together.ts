import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Whoever writes facts announces them after they are committed, many in one notice: a notice within each insert takes a lock
 * that all writers of a database share until their commit.
 */
export class AnnouncedTogether1799900000007 implements MigrationInterface {
  readonly name = 'AnnouncedTogether1799900000007';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TRIGGER fact_announced ON fact');
    await runner.query('DROP FUNCTION announce_fact()');
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
