import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a house decides stands by name in one column: a policy more needs no change of the table. */
export class PoliciesByName1797600000000 implements MigrationInterface {
  readonly name = 'PoliciesByName1797600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(BY_NAME);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}

/** Versions are never changed; only here they are written anew, to the same words. */
const BY_NAME = `
ALTER TABLE policy_version ADD COLUMN choices jsonb;
ALTER TABLE policy_version DISABLE TRIGGER policy_append_only;
UPDATE policy_version SET choices = jsonb_build_object(
  'sureness', sureness, 'risk', risk, 'lockRule', lock_rule, 'trim', trim, 'longestCheckMin', longest_check_min,
  'recheck', recheck, 'endsShot', ends_shot, 'whenTorn', when_torn, 'tasteLever', taste_lever, 'dosing', dosing,
  'tastes', tastes, 'puck', puck);
ALTER TABLE policy_version ENABLE TRIGGER policy_append_only;
ALTER TABLE policy_version ALTER COLUMN choices SET NOT NULL,
  DROP COLUMN sureness, DROP COLUMN risk, DROP COLUMN lock_rule, DROP COLUMN trim, DROP COLUMN longest_check_min,
  DROP COLUMN recheck, DROP COLUMN ends_shot, DROP COLUMN when_torn, DROP COLUMN taste_lever, DROP COLUMN dosing,
  DROP COLUMN tastes, DROP COLUMN puck;
`;
