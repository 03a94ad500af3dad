import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * The bar, the house book and the coffees as sheets: each with a revision, every revision kept. Coffees get a place of
 * their own, and a grinder holds a coffee instead of a name and a recipe.
 */
export class HouseBook1796200000000 implements MigrationInterface {
  readonly name = 'HouseBook1796200000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const sql of [TEAM, POLICIES, RECIPES, BAR, COFFEE, COFFEES_OF_GRINDERS, DRINKS, SHEET_VERSIONS])
      await runner.query(sql);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}

const keptBy = (table: string): string => `
  ADD COLUMN revision integer NOT NULL DEFAULT 1, ADD COLUMN retired boolean NOT NULL DEFAULT false,
  ADD COLUMN changed_by uuid, ADD COLUMN changed_at timestamp with time zone,
  ADD CONSTRAINT ${table}_changed_by_fk FOREIGN KEY (changed_by) REFERENCES person(id)`;

const KEPT = `revision integer NOT NULL DEFAULT 1, retired boolean NOT NULL DEFAULT false,
  changed_by uuid, changed_at timestamp with time zone`;

const keptTable = (table: string): string => `
  CONSTRAINT ${table}_pk PRIMARY KEY (id),
  CONSTRAINT ${table}_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT ${table}_changed_by_fk FOREIGN KEY (changed_by) REFERENCES person(id)`;

const TEAM = `
ALTER TABLE site
  ADD COLUMN day_starts_min integer NOT NULL DEFAULT 240, ADD COLUMN opens_min integer NOT NULL DEFAULT 450,
  ADD COLUMN closes_min integer NOT NULL DEFAULT 1080, ADD COLUMN altitude_m double precision NOT NULL DEFAULT 0,
  ADD COLUMN currency text NOT NULL DEFAULT 'EUR', ADD COLUMN plan_revision integer NOT NULL DEFAULT 1,
  ${keptBy('site')};
ALTER TABLE person ADD COLUMN units jsonb NOT NULL
  DEFAULT '{"mass":"g","volume":"ml","temperature":"°C","pressure":"bar"}';
`;

const POLICIES = `
ALTER TABLE policy_version
  ADD COLUMN recheck text NOT NULL DEFAULT 'drift', ADD COLUMN ends_shot text NOT NULL DEFAULT 'yield',
  ADD COLUMN when_torn text NOT NULL DEFAULT 'yieldFirst', ADD COLUMN taste_lever text NOT NULL DEFAULT 'yield',
  ADD COLUMN dosing text NOT NULL DEFAULT 'timed', ADD COLUMN tastes text NOT NULL DEFAULT 'whenNumbersFit',
  ADD COLUMN puck text NOT NULL DEFAULT 'ignored';
`;

const RECIPES = `
ALTER TABLE recipe_version
  ADD COLUMN time_from text NOT NULL DEFAULT 'pump',
  ADD COLUMN soak_s double precision NOT NULL DEFAULT 0, ADD COLUMN pause_s double precision NOT NULL DEFAULT 0,
  ADD COLUMN pressure_bar double precision, ADD COLUMN temp_c double precision, ADD COLUMN basket_id uuid,
  ADD COLUMN taste jsonb, ADD COLUMN prep_steps jsonb NOT NULL DEFAULT '[]', ADD COLUMN roaster jsonb,
  ADD COLUMN retired boolean NOT NULL DEFAULT false, ADD COLUMN reason text,
  ADD COLUMN valid_from date NOT NULL DEFAULT '2000-01-01', ADD COLUMN approved_by uuid,
  ADD COLUMN written_at timestamp with time zone NOT NULL DEFAULT now(),
  ADD CONSTRAINT recipe_version_approved_by_fk FOREIGN KEY (approved_by) REFERENCES person(id);
CREATE INDEX recipe_version_site_ix ON recipe_version (site_id, recipe_id, version);
CREATE TRIGGER recipe_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON recipe_version
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER recipe_announced AFTER INSERT ON recipe_version FOR EACH ROW EXECUTE FUNCTION announce_house();
`;

const BAR = `
CREATE TABLE basket (
  id uuid NOT NULL, site_id uuid NOT NULL, name text NOT NULL,
  min_g double precision NOT NULL, max_g double precision NOT NULL, wall text NOT NULL, ${KEPT}, ${keptTable('basket')}
);
CREATE UNIQUE INDEX basket_name_uq ON basket (site_id, name) WHERE NOT retired;
ALTER TABLE recipe_version ADD CONSTRAINT recipe_version_basket_fk FOREIGN KEY (basket_id) REFERENCES basket(id);
ALTER TABLE machine
  ADD COLUMN boiler text NOT NULL DEFAULT 'exchanger', ADD COLUMN gauges jsonb NOT NULL DEFAULT '[]',
  ADD COLUMN warm_up_min double precision NOT NULL DEFAULT 25,
  ADD COLUMN sets_temp boolean NOT NULL DEFAULT false, ADD COLUMN sets_pressure boolean NOT NULL DEFAULT false,
  ADD COLUMN serviced_on date, ADD COLUMN gaskets_on date, ${keptBy('machine')};
CREATE UNIQUE INDEX machine_name_uq ON machine (site_id, name) WHERE NOT retired;
ALTER TABLE group_head
  ADD COLUMN buttons jsonb NOT NULL DEFAULT '[]', ADD COLUMN basket_id uuid, ADD COLUMN cleaned_on date,
  ADD CONSTRAINT group_head_basket_fk FOREIGN KEY (basket_id) REFERENCES basket(id),
  ${keptBy('group_head')}, DROP CONSTRAINT group_head_position_uq;
CREATE UNIQUE INDEX group_head_position_uq ON group_head (machine_id, position) WHERE NOT retired;
CREATE UNIQUE INDEX group_head_name_uq ON group_head (site_id, name) WHERE NOT retired;
ALTER TABLE grinder
  ADD COLUMN stepped boolean NOT NULL DEFAULT true, ADD COLUMN dose_single_s double precision,
  ADD COLUMN dose_double_s double precision, ADD COLUMN burr_kg double precision, ADD COLUMN burrs_on date,
  ADD COLUMN first_coffee_id uuid, ${keptBy('grinder')}, DROP CONSTRAINT grinder_name_uq;
UPDATE grinder SET stepped = step_marks >= 1;
CREATE UNIQUE INDEX grinder_name_uq ON grinder (site_id, name) WHERE NOT retired;
ALTER TABLE fact ALTER COLUMN grinder_id DROP NOT NULL,
  ADD CONSTRAINT fact_station_ck CHECK (grinder_id IS NOT NULL OR kind = 'step');
CREATE INDEX fact_step_ix ON fact (site_id, at) WHERE kind = 'step';
ALTER TABLE fixture ${keptBy('fixture')};
ALTER TABLE counter ADD COLUMN name text NOT NULL DEFAULT 'Counter', ${keptBy('counter')};
`;

const COFFEE = `
CREATE TABLE coffee (
  id uuid NOT NULL, site_id uuid NOT NULL, name text NOT NULL, kind text NOT NULL, decaf boolean NOT NULL,
  roaster_words text NOT NULL, rest_days double precision NOT NULL, prime_days double precision NOT NULL,
  fade_days double precision NOT NULL, price_per_kg double precision, recipe_id uuid, ${KEPT}, ${keptTable('coffee')}
);
CREATE UNIQUE INDEX coffee_name_uq ON coffee (site_id, name) WHERE NOT retired;
CREATE TABLE bag (
  id uuid NOT NULL, site_id uuid NOT NULL, coffee_id uuid NOT NULL, roasted_on date NOT NULL,
  weight_g double precision NOT NULL, freezes jsonb NOT NULL, opened_on date, finished_on date, label text NOT NULL,
  ${KEPT}, ${keptTable('bag')},
  CONSTRAINT bag_coffee_fk FOREIGN KEY (coffee_id) REFERENCES coffee(id)
);
CREATE INDEX bag_roasted_ix ON bag (site_id, roasted_on);
CREATE INDEX bag_coffee_ix ON bag (coffee_id, finished_on);
CREATE INDEX fact_hopper_ix ON fact ((body->>'bagId')) WHERE kind = 'newBag';
CREATE INDEX fact_site_at_ix ON fact (site_id, at);
ALTER TABLE grinder ADD CONSTRAINT grinder_first_coffee_fk FOREIGN KEY (first_coffee_id) REFERENCES coffee(id);
`;

/** What a grinder held by name becomes a coffee, with the recipe that hung on the grinder. */
const COFFEES_OF_GRINDERS = `
INSERT INTO coffee (id, site_id, name, kind, decaf, roaster_words, rest_days, prime_days, fade_days, recipe_id)
SELECT gen_random_uuid(), g.site_id, g.coffee, 'blend', false, '', 4, 14, 28, (min(r.recipe_id::text))::uuid
  FROM grinder g JOIN recipe_version r ON r.id = g.recipe_version_id GROUP BY g.site_id, g.coffee;
UPDATE grinder g SET first_coffee_id = c.id FROM coffee c WHERE c.site_id = g.site_id AND c.name = g.coffee;
ALTER TABLE grinder DROP COLUMN coffee, DROP COLUMN recipe_version_id;
`;

const DRINKS = `
CREATE TABLE drink (
  id uuid NOT NULL, site_id uuid NOT NULL, name text NOT NULL, recipe_id uuid NOT NULL,
  share double precision NOT NULL, baskets double precision NOT NULL, milk_ml double precision NOT NULL,
  foam_mm double precision NOT NULL, milk_temp_c double precision NOT NULL, water_ml double precision NOT NULL,
  water_first boolean NOT NULL, orders double precision NOT NULL, position integer NOT NULL,
  ${KEPT}, ${keptTable('drink')}
);
CREATE UNIQUE INDEX drink_name_uq ON drink (site_id, name) WHERE NOT retired;
`;

const SHEET_VERSIONS = `
CREATE TABLE sheet_version (
  id uuid NOT NULL, site_id uuid NOT NULL, kind text NOT NULL, subject_id uuid NOT NULL, revision integer NOT NULL,
  retired boolean NOT NULL, changed_by uuid NOT NULL, changed_at timestamp with time zone NOT NULL DEFAULT now(),
  sheet jsonb NOT NULL,
  CONSTRAINT sheet_version_pk PRIMARY KEY (id),
  CONSTRAINT sheet_version_uq UNIQUE (subject_id, kind, revision),
  CONSTRAINT sheet_version_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT sheet_version_changed_by_fk FOREIGN KEY (changed_by) REFERENCES person(id)
);
CREATE TRIGGER sheet_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON sheet_version
  FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER sheet_announced AFTER INSERT ON sheet_version FOR EACH ROW EXECUTE FUNCTION announce_house();
`;
