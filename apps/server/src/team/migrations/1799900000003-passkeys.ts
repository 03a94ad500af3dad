import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Passkeys, by which a head or the office comes in from elsewhere, and the challenges that are under way. */
export class Passkeys1799900000003 implements MigrationInterface {
  readonly name = 'Passkeys1799900000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
CREATE TABLE passkey (
  id uuid NOT NULL, site_id uuid NOT NULL, person_id uuid NOT NULL, name text NOT NULL, credential_id text NOT NULL,
  public_key text NOT NULL, counter bigint NOT NULL, transports jsonb NOT NULL DEFAULT '[]',
  made_at timestamp with time zone NOT NULL DEFAULT now(), used_at timestamp with time zone,
  CONSTRAINT passkey_pk PRIMARY KEY (id),
  CONSTRAINT passkey_credential_uq UNIQUE (credential_id),
  CONSTRAINT passkey_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT passkey_person_fk FOREIGN KEY (person_id) REFERENCES person(id)
);
CREATE INDEX passkey_person_ix ON passkey (person_id);
CREATE TABLE passkey_challenge (
  challenge text NOT NULL, site_id uuid, person_id uuid, until timestamp with time zone NOT NULL,
  CONSTRAINT passkey_challenge_pk PRIMARY KEY (challenge),
  CONSTRAINT passkey_challenge_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT passkey_challenge_person_fk FOREIGN KEY (person_id) REFERENCES person(id)
);
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
