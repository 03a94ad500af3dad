import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A second person's yes: given by their PIN, for what one other person writes in the next minutes. */
export class AYes1799000000001 implements MigrationInterface {
  readonly name = 'AYes1799000000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
CREATE TABLE yes (
  id uuid NOT NULL, site_id uuid NOT NULL, person_id uuid NOT NULL, to_person_id uuid NOT NULL,
  given_at timestamp with time zone NOT NULL DEFAULT now(), until timestamp with time zone NOT NULL,
  CONSTRAINT yes_pk PRIMARY KEY (id),
  CONSTRAINT yes_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT yes_person_fk FOREIGN KEY (person_id) REFERENCES person(id),
  CONSTRAINT yes_to_person_fk FOREIGN KEY (to_person_id) REFERENCES person(id)
);
ALTER TABLE fact ADD COLUMN approved_by uuid,
  ADD CONSTRAINT fact_approved_by_fk FOREIGN KEY (approved_by) REFERENCES person(id);
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
