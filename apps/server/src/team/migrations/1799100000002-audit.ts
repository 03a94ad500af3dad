import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who came in by which door, and who did not: as append-only as the facts. */
export class Audit1799100000002 implements MigrationInterface {
  readonly name = 'Audit1799100000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
CREATE TABLE audit (
  id uuid NOT NULL, site_id uuid NOT NULL, at timestamp with time zone NOT NULL DEFAULT now(), what text NOT NULL,
  about_id uuid NOT NULL, by_id uuid, address text NOT NULL,
  CONSTRAINT audit_pk PRIMARY KEY (id),
  CONSTRAINT audit_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT audit_about_fk FOREIGN KEY (about_id) REFERENCES person(id),
  CONSTRAINT audit_by_fk FOREIGN KEY (by_id) REFERENCES person(id)
);
CREATE INDEX audit_site_ix ON audit (site_id, at);
CREATE TRIGGER audit_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON audit
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
REVOKE UPDATE, DELETE, TRUNCATE ON audit FROM PUBLIC, CURRENT_USER;
CREATE INDEX sheet_version_site_ix ON sheet_version (site_id, changed_at);
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
