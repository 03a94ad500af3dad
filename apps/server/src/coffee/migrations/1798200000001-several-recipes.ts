import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Several recipes of one coffee on one collar. */
export class SeveralRecipes1798200000001 implements MigrationInterface {
  readonly name = 'SeveralRecipes1798200000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE coffee ADD COLUMN more_recipes jsonb NOT NULL DEFAULT '[]';
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
