import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The first tables: who, the bar, recipes, and the append-only journal of facts. */
export class FirstTables1795000000000 implements MigrationInterface {
  readonly name = 'FirstTables1795000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TEAM);
    await runner.query(HOUSE);
    await runner.query(BAR);
    await runner.query(JOURNAL);
    await runner.query(APPEND_ONLY);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}

const TEAM = `
CREATE TABLE site (
  id uuid NOT NULL, name text NOT NULL, time_zone text NOT NULL,
  room_width_cm double precision NOT NULL, room_depth_cm double precision NOT NULL,
  sureness double precision NOT NULL, risk double precision NOT NULL,
  CONSTRAINT site_pk PRIMARY KEY (id)
);
CREATE TABLE person (
  id uuid NOT NULL, site_id uuid NOT NULL, name text NOT NULL, role text NOT NULL, pin_hash text NOT NULL,
  failed_attempts integer NOT NULL DEFAULT 0, wait_until timestamp with time zone,
  CONSTRAINT person_pk PRIMARY KEY (id),
  CONSTRAINT person_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT person_name_uq UNIQUE (site_id, name)
);
CREATE TABLE session (
  token_hash text NOT NULL, site_id uuid NOT NULL, person_id uuid NOT NULL, expires_at timestamp with time zone NOT NULL,
  CONSTRAINT session_pk PRIMARY KEY (token_hash),
  CONSTRAINT session_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT session_person_fk FOREIGN KEY (person_id) REFERENCES person(id)
);
CREATE INDEX session_expires_ix ON session (expires_at);
`;

const HOUSE = `
CREATE TABLE recipe_version (
  id uuid NOT NULL, site_id uuid NOT NULL, recipe_id uuid NOT NULL, name text NOT NULL, version integer NOT NULL,
  dose_g double precision NOT NULL, dose_tolerance_g double precision NOT NULL,
  yield_g double precision NOT NULL, yield_tolerance_g double precision NOT NULL,
  time_min_s double precision NOT NULL, time_max_s double precision NOT NULL,
  first_drop_min_s double precision NOT NULL, first_drop_max_s double precision NOT NULL,
  CONSTRAINT recipe_version_pk PRIMARY KEY (id),
  CONSTRAINT recipe_version_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT recipe_version_uq UNIQUE (recipe_id, version),
  CONSTRAINT recipe_version_window_ck CHECK (time_min_s < time_max_s AND first_drop_min_s < first_drop_max_s)
);
`;

const PLACE = `x_cm double precision NOT NULL, y_cm double precision NOT NULL,
  width_cm double precision NOT NULL, depth_cm double precision NOT NULL`;

const BAR = `
CREATE TABLE machine (
  id uuid NOT NULL, site_id uuid NOT NULL, name text NOT NULL, ${PLACE},
  CONSTRAINT machine_pk PRIMARY KEY (id),
  CONSTRAINT machine_site_fk FOREIGN KEY (site_id) REFERENCES site(id)
);
CREATE TABLE group_head (
  id uuid NOT NULL, site_id uuid NOT NULL, machine_id uuid NOT NULL, name text NOT NULL, position integer NOT NULL,
  CONSTRAINT group_head_pk PRIMARY KEY (id),
  CONSTRAINT group_head_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT group_head_machine_fk FOREIGN KEY (machine_id) REFERENCES machine(id),
  CONSTRAINT group_head_position_uq UNIQUE (machine_id, position)
);
CREATE TABLE grinder (
  id uuid NOT NULL, site_id uuid NOT NULL, name text NOT NULL, ${PLACE},
  step_marks double precision NOT NULL, finer text NOT NULL,
  dial_min double precision NOT NULL, dial_max double precision NOT NULL, seed_setting double precision NOT NULL,
  seconds_per_mark double precision, retention_g double precision, rate_gps double precision,
  coffee text NOT NULL, recipe_version_id uuid NOT NULL,
  CONSTRAINT grinder_pk PRIMARY KEY (id),
  CONSTRAINT grinder_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT grinder_recipe_version_fk FOREIGN KEY (recipe_version_id) REFERENCES recipe_version(id),
  CONSTRAINT grinder_name_uq UNIQUE (site_id, name)
);
CREATE TABLE counter (
  id uuid NOT NULL, site_id uuid NOT NULL, faces text NOT NULL, ${PLACE},
  CONSTRAINT counter_pk PRIMARY KEY (id),
  CONSTRAINT counter_site_fk FOREIGN KEY (site_id) REFERENCES site(id)
);
CREATE INDEX counter_site_ix ON counter (site_id);
CREATE TABLE fixture (
  id uuid NOT NULL, site_id uuid NOT NULL, kind text NOT NULL, name text NOT NULL, ${PLACE},
  CONSTRAINT fixture_pk PRIMARY KEY (id),
  CONSTRAINT fixture_site_fk FOREIGN KEY (site_id) REFERENCES site(id)
);
CREATE INDEX machine_site_ix ON machine (site_id);
CREATE INDEX group_head_site_ix ON group_head (site_id);
CREATE INDEX fixture_site_ix ON fixture (site_id);
`;

const JOURNAL = `
CREATE TABLE fact (
  id uuid NOT NULL, seq bigserial NOT NULL, site_id uuid NOT NULL, kind text NOT NULL,
  at timestamp with time zone NOT NULL, received_at timestamp with time zone NOT NULL DEFAULT now(),
  person_id uuid NOT NULL, grinder_id uuid NOT NULL, group_id uuid, body jsonb NOT NULL,
  CONSTRAINT fact_pk PRIMARY KEY (id),
  CONSTRAINT fact_seq_uq UNIQUE (seq),
  CONSTRAINT fact_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT fact_person_fk FOREIGN KEY (person_id) REFERENCES person(id),
  CONSTRAINT fact_grinder_fk FOREIGN KEY (grinder_id) REFERENCES grinder(id),
  CONSTRAINT fact_group_fk FOREIGN KEY (group_id) REFERENCES group_head(id)
);
CREATE INDEX fact_site_seq_ix ON fact (site_id, seq);
CREATE INDEX fact_grinder_seq_ix ON fact (grinder_id, seq);
CREATE INDEX fact_grinder_at_ix ON fact (grinder_id, at);
CREATE INDEX fact_person_seq_ix ON fact (person_id, seq);
CREATE INDEX fact_lock_ix ON fact (grinder_id, at) WHERE kind = 'lock';
CREATE INDEX fact_corrects_ix ON fact ((body->>'factId')) WHERE kind = 'correction';
`;

/**
 * Facts are only added. The trigger refuses change to everyone, owner and superuser included; the role that the
 * server runs as also gives up the right itself. A notice goes out with each committed fact.
 */
const APPEND_ONLY = `
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'facts are append-only: % on % is refused, add a correction instead', TG_OP, TG_TABLE_NAME
    USING ERRCODE = 'restrict_violation';
END $$;
CREATE TRIGGER fact_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON fact
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
REVOKE UPDATE, DELETE, TRUNCATE ON fact FROM PUBLIC, CURRENT_USER;

CREATE FUNCTION announce_fact() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('tempera_fact', json_build_object('siteId', NEW.site_id, 'id', NEW.id)::text);
  RETURN NULL;
END $$;
CREATE TRIGGER fact_announced AFTER INSERT ON fact FOR EACH ROW EXECUTE FUNCTION announce_fact();
`;
