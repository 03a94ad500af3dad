import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What people are signed off for, tablets of the house, tries at PINs by tablet and person, and a long password for whoever comes from elsewhere. */
export class Devices1799100000003 implements MigrationInterface {
  readonly name = 'Devices1799100000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
CREATE TABLE device (
  id uuid NOT NULL, site_id uuid NOT NULL, name text NOT NULL, token_hash text, code_hash text,
  code_until timestamp with time zone, enrolled_by uuid NOT NULL, enrolled_at timestamp with time zone NOT NULL DEFAULT now(),
  struck_off boolean NOT NULL DEFAULT false,
  CONSTRAINT device_pk PRIMARY KEY (id),
  CONSTRAINT device_token_uq UNIQUE (token_hash),
  CONSTRAINT device_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT device_enrolled_by_fk FOREIGN KEY (enrolled_by) REFERENCES person(id)
);
CREATE INDEX device_site_ix ON device (site_id);
CREATE TABLE pin_try (
  site_id uuid NOT NULL, device_id uuid NOT NULL, person_id uuid NOT NULL, failed integer NOT NULL,
  wait_until timestamp with time zone,
  CONSTRAINT pin_try_pk PRIMARY KEY (device_id, person_id),
  CONSTRAINT pin_try_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT pin_try_device_fk FOREIGN KEY (device_id) REFERENCES device(id),
  CONSTRAINT pin_try_person_fk FOREIGN KEY (person_id) REFERENCES person(id)
);
ALTER TABLE person ADD COLUMN password_hash text, ADD COLUMN sign_offs jsonb NOT NULL DEFAULT '[]';
ALTER TABLE session ADD COLUMN device_id uuid,
  ADD CONSTRAINT session_device_fk FOREIGN KEY (device_id) REFERENCES device(id);
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
