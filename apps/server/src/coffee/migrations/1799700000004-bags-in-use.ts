import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * When a bag went into a hopper and whether another took its place, beside the bag: read for every bag on the shelf, written once a
 * bag. The facts say it; this remembers it, and can be made again from them.
 */
export class BagsInUse1799700000004 implements MigrationInterface {
  readonly name = 'BagsInUse1799700000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE bag ADD COLUMN first_in_at timestamp with time zone, ADD COLUMN last_in_at timestamp with time zone,
  ADD COLUMN in_grinder_id uuid, ADD COLUMN used_up boolean NOT NULL DEFAULT false;
CREATE INDEX bag_stock_ix ON bag (site_id) WHERE NOT used_up AND NOT retired AND finished_on IS NULL;

CREATE FUNCTION refresh_bag(wanted text) RETURNS void LANGUAGE sql AS $$
  UPDATE bag b
     SET first_in_at = told.first_at, last_in_at = told.last_at, in_grinder_id = told.grinder_id,
         used_up = EXISTS (SELECT 1 FROM fact later
                            WHERE later.kind = 'newBag' AND later.grinder_id = told.grinder_id AND later.at > told.last_at
                              AND NOT EXISTS (SELECT 1 FROM withdrawn w WHERE w.fact_id = later.id))
    FROM (SELECT min(f.at) AS first_at, max(f.at) AS last_at,
                 (array_agg(f.grinder_id ORDER BY f.at DESC))[1] AS grinder_id
            FROM fact f
           WHERE f.kind = 'newBag' AND f.body->>'bagId' = wanted
             AND NOT EXISTS (SELECT 1 FROM withdrawn w WHERE w.fact_id = f.id)) told
   WHERE b.id::text = wanted
$$;

-- The bag of a fact, and the one that it took the place of.
CREATE FUNCTION refresh_bags_of(told fact) RETURNS void LANGUAGE plpgsql AS $$
DECLARE before_it text;
BEGIN
  PERFORM refresh_bag(told.body->>'bagId');
  SELECT f.body->>'bagId' INTO before_it FROM fact f
   WHERE f.kind = 'newBag' AND f.grinder_id = told.grinder_id AND f.at < told.at AND f.id <> told.id
     AND NOT EXISTS (SELECT 1 FROM withdrawn w WHERE w.fact_id = f.id)
   ORDER BY f.at DESC LIMIT 1;
  PERFORM refresh_bag(before_it);
END $$;

CREATE FUNCTION bag_went_in() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM refresh_bags_of(NEW);
  RETURN NULL;
END $$;
CREATE TRIGGER fact_bag_went_in AFTER INSERT ON fact FOR EACH ROW WHEN (NEW.kind = 'newBag')
  EXECUTE FUNCTION bag_went_in();

CREATE FUNCTION bag_word_changed() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE told fact;
BEGIN
  SELECT * INTO told FROM fact WHERE id = coalesce(NEW.fact_id, OLD.fact_id) AND kind = 'newBag';
  IF FOUND THEN PERFORM refresh_bags_of(told); END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER withdrawn_bag AFTER INSERT OR DELETE ON withdrawn FOR EACH ROW EXECUTE FUNCTION bag_word_changed();

UPDATE bag b
   SET first_in_at = told.first_at, last_in_at = told.last_at, in_grinder_id = told.grinder_id, used_up = told.used_up
  FROM (SELECT bag_id, min(at) AS first_at, max(at) AS last_at, (array_agg(grinder_id ORDER BY at DESC))[1] AS grinder_id,
               bool_and(next_at IS NOT NULL) AS used_up
          FROM (SELECT f.body->>'bagId' AS bag_id, f.at, f.grinder_id,
                       lead(f.at) OVER (PARTITION BY f.grinder_id ORDER BY f.at) AS next_at
                  FROM fact f
                 WHERE f.kind = 'newBag' AND NOT EXISTS (SELECT 1 FROM withdrawn w WHERE w.fact_id = f.id)) in_turn
         WHERE bag_id IS NOT NULL GROUP BY bag_id) told
 WHERE b.id::text = told.bag_id;
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
