import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Sign-offs say which head gave them; of those from before nobody noted it. */
export class WhoSignedOff1799900000004 implements MigrationInterface {
  readonly name = 'WhoSignedOff1799900000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
UPDATE person SET sign_offs = (SELECT jsonb_agg('{"by": null}'::jsonb || given) FROM jsonb_array_elements(sign_offs) AS given)
 WHERE jsonb_array_length(sign_offs) > 0
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
