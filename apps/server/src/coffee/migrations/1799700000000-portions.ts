import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A bag can be split into portions, each with a life of its own. */
export class Portions1799700000000 implements MigrationInterface {
  readonly name = 'Portions1799700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE bag ADD COLUMN portion_of uuid, ADD CONSTRAINT bag_portion_of_fk FOREIGN KEY (portion_of) REFERENCES bag(id);
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
