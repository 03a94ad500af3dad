import pg from 'pg';
import type { Cluster } from '../../setup/cluster.ts';

/** Ten years of one café: a shot every minute of every open hour or so; `TEMPERA_BENCH_SHOTS` for another number. */
export const SHOTS = Number(process.env.TEMPERA_BENCH_SHOTS ?? 5_000_000);
/** What a bar writes beside its shots is the demo's of so many days, again and again. */
const DAYS_OF_WORK = 42;
const SHOTS_A_DAY = 1_440;
/** Bags of that time, and other cafés on the same database. */
const SHOTS_A_BAG = 55;
const CAFES = 1_000;
/** The grinder, the group and the person of the first years are gone since. */
const GONE_SHARE = 0.05;
const DATABASE = 'tempera';

/** Ids of what is retired, of who left, and of a grinder that serves. */
export interface Loaded {
  retiredId: string;
  leftId: string;
}

/** The database's superuser: loading years takes neither triggers nor checks row by row. */
async function admin({ adminUrl }: Cluster): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: adminUrl.replace(/\/postgres$/, `/${DATABASE}`) });
  await client.connect();
  await client.query(
    `SET session_replication_role = replica; SET synchronous_commit = off; SET maintenance_work_mem = '1GB'`,
  );
  // The same name makes the same id, of a form that every floor takes.
  await client.query(
    `CREATE FUNCTION pg_temp.id_of(name text) RETURNS uuid LANGUAGE sql IMMUTABLE AS
       $$ SELECT overlay(overlay(md5(name) placing '7' from 13) placing '8' from 17)::uuid $$`,
  );
  return client;
}

/** Loads the same rows each time: their numbers hang on their place alone. */
export async function loadScale(cluster: Cluster): Promise<Loaded> {
  const db = await admin(cluster);
  try {
    const indexes = (
      await db.query<{ indexdef: string; indexname: string }>(
        `SELECT indexname, indexdef FROM pg_indexes WHERE tablename = 'fact'
            AND indexname NOT IN (SELECT conname FROM pg_constraint)`,
      )
    ).rows;
    for (const { indexname } of indexes) await db.query(`DROP INDEX ${indexname}`);
    const { rows } = await db.query<{ id: string }>(
      `SELECT pg_temp.id_of('scale ' || n) AS id FROM generate_series(1, 2) n`,
    );
    const [retiredId = '', leftId = ''] = rows.map(({ id }) => id);
    await db.query(
      `INSERT INTO person (id, site_id, name, role, revision, retired, failed_attempts, units, sign_offs)
       SELECT $1, site_id, 'Sedge', role, 1, true, 0, units, '[]' FROM person LIMIT 1`,
      [leftId],
    );
    await db.query(
      `INSERT INTO grinder (id, site_id, name, x_cm, y_cm, width_cm, depth_cm, step_marks, finer, dial_min, dial_max, seed_setting, retired)
       SELECT $1, site_id, 'Old', 0, 0, 24, 40, 1, 'down', 0, 60, 30, true FROM grinder LIMIT 1`,
      [retiredId],
    );
    await loadBags(db);
    await loadShots(db, retiredId, leftId);
    await loadWork(db);
    await loadCafes(db);
    for (const { indexdef } of indexes) await db.query(indexdef);
    await db.query('ANALYZE');
    // The memory of these years was made long ago: what is measured is what a bar does every day.
    await db.query('UPDATE bar_memory SET heard_seq = (SELECT max(seq) FROM fact)');
    return { retiredId, leftId };
  } finally {
    await db.end();
  }
}

/** Bags that went into a hopper one after another, and are used up. */
const loadBags = (db: pg.Client): Promise<unknown> =>
  db.query(
    `WITH c AS (SELECT id, site_id, row_number() OVER (ORDER BY id) - 1 AS i FROM coffee),
          g AS (SELECT id, site_id, row_number() OVER (ORDER BY id) - 1 AS i FROM grinder WHERE NOT retired),
          p AS (SELECT id FROM person WHERE NOT retired ORDER BY id LIMIT 1),
          t AS (SELECT n, now() - interval '50 days' - ($1::int - n) * interval '55 minutes' AS at FROM generate_series(1, $1::int) n),
          b AS (INSERT INTO bag (id, site_id, coffee_id, roasted_on, weight_g, freezes, label, used_up, first_in_at, last_in_at,
                                 in_grinder_id)
                SELECT pg_temp.id_of('bag ' || n), c.site_id, c.id, (t.at - interval '9 days')::date, 1000, '[]', '', true, t.at, t.at,
                       g.id
                  FROM t JOIN c ON c.i = n % (SELECT count(*) FROM c) JOIN g ON g.i = n % (SELECT count(*) FROM g))
     INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body)
     SELECT pg_temp.id_of('in ' || n), g.site_id, 'newBag', t.at, t.at, p.id, g.id, NULL,
            jsonb_build_object('roastedOn', NULL, 'bagId', pg_temp.id_of('bag ' || n))
       FROM t CROSS JOIN p JOIN g ON g.i = n % (SELECT count(*) FROM g)`,
    [Math.round(SHOTS / SHOTS_A_BAG)],
  );

/** Shots up to seven weeks ago, every other one with its trace; the first of them by what is gone since. */
const loadShots = (db: pg.Client, retiredId: string, leftId: string): Promise<unknown> =>
  db.query(
    `WITH g AS (SELECT id, site_id, row_number() OVER (ORDER BY id) - 1 AS i FROM grinder WHERE NOT retired),
          h AS (SELECT id, row_number() OVER (ORDER BY id) - 1 AS i FROM group_head),
          p AS (SELECT id, row_number() OVER (ORDER BY id) - 1 AS i FROM person WHERE NOT retired),
          r AS (SELECT id FROM recipe_version ORDER BY id LIMIT 1)
     INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body)
     SELECT pg_temp.id_of('shot ' || n), g.site_id, 'shot', t.at, t.at,
            CASE WHEN n < $2 THEN $4::uuid ELSE p.id END, CASE WHEN n < $2 THEN $3::uuid ELSE g.id END, h.id,
            jsonb_build_object('recipeVersionId', r.id, 'setting', 30, 'doseG', 18, 'yieldG', 36,
              'timeS', 25 + n % 60 / 10.0, 'firstDropS', 6, 'flaw', NULL, 'measuredBy', 'scale',
              'trace', CASE WHEN n % 2 = 0 THEN jsonb_build_object('hz', 10, 'packed', repeat(md5(n::text), 11)) END)
       FROM generate_series(1, $1::int) n CROSS JOIN r
       JOIN g ON g.i = n % (SELECT count(*) FROM g)
       JOIN h ON h.i = n % (SELECT count(*) FROM h)
       JOIN p ON p.i = n % (SELECT count(*) FROM p)
       CROSS JOIN LATERAL (SELECT now() - interval '50 days' - ($1 - n) * interval '1 minute' AS at) t`,
    [SHOTS, Math.round(GONE_SHARE * SHOTS), retiredId, leftId],
  );

/** Openings, services and closings as the demo has them, before it, as long as the shots go back; what undoes another undoes its own. */
const loadWork = (db: pg.Client): Promise<unknown> =>
  db.query(
    `WITH own AS (SELECT * FROM fact f WHERE kind NOT IN ('shot', 'newBag') AND clock IS NULL
                     AND at BETWEEN now() - $2::int * interval '1 day' AND now()
                     AND site_id = (SELECT site_id FROM grinder LIMIT 1))
     INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body)
     SELECT pg_temp.id_of(own.id || ' ' || n), own.site_id, own.kind, t.at, t.at, own.person_id, own.grinder_id, own.group_id,
            own.body || coalesce((SELECT jsonb_object_agg(key, pg_temp.id_of((own.body->>key) || ' ' || n))
                                    FROM unnest(ARRAY['takesBack', 'factId', 'noteId', 'handedOverId']) AS key
                                   WHERE own.body->>key IS NOT NULL), '{}')
       FROM own, generate_series(1, $1::int) n
       CROSS JOIN LATERAL (SELECT own.at - n * $2::int * interval '1 day' AS at) t`,
    [Math.ceil(SHOTS / SHOTS_A_DAY / DAYS_OF_WORK), DAYS_OF_WORK],
  );

/** Other cafés, each with the people and the coffees of the demo's. */
async function loadCafes(db: pg.Client): Promise<void> {
  const columnsOf = async (table: string, but: readonly string[]): Promise<string> => {
    const { rows } = await db.query<{ name: string }>(
      `SELECT column_name AS name FROM information_schema.columns
        WHERE table_name = $1 AND is_generated = 'NEVER' AND NOT column_name = ANY($2)`,
      [table, but],
    );
    return rows.map(({ name }) => name).join(', ');
  };
  const own = await columnsOf('site', ['id', 'name']);
  await db.query(
    `INSERT INTO site (id, name, ${own}) SELECT pg_temp.id_of('site ' || n), 'Café ' || n, ${own}
       FROM (SELECT * FROM site LIMIT 1) s, generate_series(1, $1::int) n`,
    [CAFES],
  );
  for (const table of ['person', 'coffee', 'machine']) {
    const columns = await columnsOf(table, ['id', 'site_id']);
    await db.query(
      `INSERT INTO ${table} (id, site_id, ${columns})
       SELECT pg_temp.id_of('${table} ' || n || t.id), pg_temp.id_of('site ' || n), ${columns}
         FROM (SELECT * FROM ${table} WHERE site_id = (SELECT site_id FROM grinder LIMIT 1) LIMIT 5) t, generate_series(1, $1::int) n`,
      [CAFES],
    );
  }
}
