import type { MigrationInterface, QueryRunner } from 'typeorm';

/** People are kept like sheets, come in by a code, and are retired; a session knows since when it is there. */
export class ATeam1799000000000 implements MigrationInterface {
  readonly name = 'ATeam1799000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE person
  ALTER COLUMN pin_hash DROP NOT NULL,
  ADD COLUMN code_hash text, ADD COLUMN code_until timestamp with time zone,
  ADD COLUMN revision integer NOT NULL DEFAULT 1, ADD COLUMN retired boolean NOT NULL DEFAULT false,
  ADD COLUMN changed_by uuid, ADD COLUMN changed_at timestamp with time zone,
  ADD CONSTRAINT person_changed_by_fk FOREIGN KEY (changed_by) REFERENCES person(id),
  DROP CONSTRAINT person_name_uq;
CREATE UNIQUE INDEX person_name_uq ON person (site_id, name) WHERE NOT retired;
ALTER TABLE session
  ADD COLUMN created_at timestamp with time zone NOT NULL DEFAULT now(),
  ADD COLUMN seen_at timestamp with time zone NOT NULL DEFAULT now();
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
