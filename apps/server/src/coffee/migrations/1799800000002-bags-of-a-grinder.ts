import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Kilograms through a grinder are the bags that went into its hopper. */
export class BagsOfAGrinder1799800000002 implements MigrationInterface {
  readonly name = 'BagsOfAGrinder1799800000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('CREATE INDEX bag_grinder_ix ON bag (in_grinder_id, first_in_at) INCLUDE (weight_g)');
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
