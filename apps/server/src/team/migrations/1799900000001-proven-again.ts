import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When a session's person last gave their PIN: what carries a signature asks for it anew after a while. */
export class ProvenAgain1799900000001 implements MigrationInterface {
  readonly name = 'ProvenAgain1799900000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE session ADD COLUMN proven_at timestamp with time zone NOT NULL DEFAULT now()');
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
