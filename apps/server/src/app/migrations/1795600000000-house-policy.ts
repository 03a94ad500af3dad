import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The house's policies become versions of their own; what stood on the café is its first. Bags are found by an index. */
export class HousePolicy1795600000000 implements MigrationInterface {
  readonly name = 'HousePolicy1795600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLE);
    await runner.query(FIRST_VERSIONS);
    await runner.query(ANNOUNCED);
    await runner.query(`CREATE INDEX fact_bag_ix ON fact (grinder_id, at) WHERE kind = 'newBag'`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}

const TABLE = `
CREATE TABLE policy_version (
  id uuid NOT NULL, site_id uuid NOT NULL, version integer NOT NULL,
  sureness double precision NOT NULL, risk double precision NOT NULL,
  lock_rule text NOT NULL, trim text NOT NULL, longest_check_min double precision NOT NULL,
  reason text, person_id uuid, changed_at timestamp with time zone NOT NULL DEFAULT now(),
  CONSTRAINT policy_version_pk PRIMARY KEY (id),
  CONSTRAINT policy_version_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT policy_version_person_fk FOREIGN KEY (person_id) REFERENCES person(id),
  CONSTRAINT policy_version_uq UNIQUE (site_id, version)
);
CREATE TRIGGER policy_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON policy_version
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
`;

const FIRST_VERSIONS = `
INSERT INTO policy_version (id, site_id, version, sureness, risk, lock_rule, trim, longest_check_min)
SELECT gen_random_uuid(), id, 1, sureness, risk, 'sureness', 'dose', 60 FROM site;
ALTER TABLE site DROP COLUMN sureness, DROP COLUMN risk;
`;

/** Whoever has the bar open reads it again. */
const ANNOUNCED = `
CREATE FUNCTION announce_house() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('tempera_house', json_build_object('siteId', NEW.site_id)::text);
  RETURN NULL;
END $$;
CREATE TRIGGER policy_announced AFTER INSERT ON policy_version FOR EACH ROW EXECUTE FUNCTION announce_house();
`;
