import type { Bench } from '@tempera/contract/calibration';
import type { JournalPage } from '@tempera/contract/journal';
import type { Logger } from 'typeorm';
import { v4 as uuidv4 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Session } from '@tempera/contract/team';
import { keeper } from '../src/journal/keep.ts';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

/** A house old enough that a plan by the whole table would be chosen where no index serves. */
const OLD_SHOTS = 60_000;
const OLD_BAGS = 3_000;
/** So often the demo's own weeks went before it. */
const TIMES_BACK = 10;
/** A little more than six weeks of the demo. */
const MOST_TAKEN_UP = 6_000;

let test: TestServer;
let ines: TestClient;
const seen: { query: string; parameters: unknown[] }[] = [];

/** Hears every statement that the server sends. */
const listening: Logger = {
  logQuery: (query, parameters) => void seen.push({ query, parameters: (parameters as unknown[] | undefined) ?? [] }),
  logQueryError: () => undefined,
  logQuerySlow: () => undefined,
  logSchemaBuild: () => undefined,
  logMigration: () => undefined,
  log: () => undefined,
};

let retiredId = '';
let leftId = '';
beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
  const { db } = test.server;
  const [site] = await db.query<{ id: string }[]>('SELECT id FROM site');
  const bar = await ines.bar();
  retiredId = uuidv4();
  leftId = uuidv4();
  const [coffeeId, recipeId] = [bar.grinders[0]!.coffeeId, bar.grinders[0]!.recipe.id];
  const [owner] = [await ownerOf(test)];
  await owner.query(
    `INSERT INTO person (id, site_id, name, role, revision, retired, failed_attempts, units, sign_offs)
     SELECT $1, site_id, 'Sedge', role, 1, true, 0, units, '[]' FROM person LIMIT 1`,
    [leftId],
  );
  await owner.query(
    `INSERT INTO grinder (id, site_id, name, x_cm, y_cm, width_cm, depth_cm, step_marks, finer, dial_min, dial_max, seed_setting, retired)
     SELECT $1, site_id, 'Old', 0, 0, 24, 40, 1, 'down', 0, 60, 30, true FROM grinder LIMIT 1`,
    [retiredId],
  );
  // What is retired or gone lies at the beginning of the journal, years back.
  await owner.query(
    `INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body)
     SELECT overlay(gen_random_uuid()::text placing '7' from 15 for 1)::uuid, $1, 'shot', now() - interval '9 years' + n * interval '1 minute',
            now() - interval '9 years' + n * interval '1 minute',
            CASE WHEN n < 300 THEN $2::uuid ELSE (SELECT id FROM person WHERE name = 'Tobin') END,
            CASE WHEN n < 300 THEN $3::uuid ELSE $4::uuid END, $5,
            jsonb_build_object('recipeVersionId', $6::text, 'setting', 30, 'doseG', 18, 'yieldG', 36, 'timeS', 27,
                               'firstDropS', 6, 'flaw', null, 'measuredBy', 'scale', 'trace', null)
       FROM generate_series(1, ${OLD_SHOTS}) n`,
    [site!.id, leftId, retiredId, bar.grinders[0]!.id, bar.machines[0]!.groups[0]!.id, recipeId],
  );
  // What the demo's weeks hold beside shots and bags was done in all the years before them.
  await owner.query(
    `INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body)
     SELECT overlay(gen_random_uuid()::text placing '7' from 15 for 1)::uuid, f.site_id, f.kind, t.at, t.at, f.person_id, f.grinder_id,
            f.group_id, f.body || coalesce((SELECT jsonb_object_agg(key, gen_random_uuid())
                                      FROM unnest(ARRAY['takesBack', 'factId']) AS key WHERE f.body->>key IS NOT NULL), '{}')
       FROM fact f CROSS JOIN generate_series(1, ${TIMES_BACK}) n
       CROSS JOIN LATERAL (SELECT f.at - n * interval '49 days' AS at) t
      WHERE f.kind NOT IN ('shot', 'newBag') AND f.at >= now() - interval '49 days'`,
  );
  await owner.query(
    `INSERT INTO bag (id, site_id, coffee_id, roasted_on, weight_g, freezes, label, used_up)
     SELECT gen_random_uuid(), $1, $2, date '2018-01-01' + n % 900, 1000, '[]', '', true FROM generate_series(1, ${OLD_BAGS}) n`,
    [site!.id, coffeeId],
  );
  await owner.query('ANALYZE');
  await owner.end();
  db.setOptions({ logging: true, logger: listening });
});
afterAll(() => test.close());

async function ownerOf({ databaseUrl }: TestServer) {
  const { default: pg } = await import('pg');
  const owner = new pg.Client({ connectionString: databaseUrl });
  await owner.connect();
  return owner;
}

interface PlanNode {
  'Node Type': string;
  'Relation Name'?: string;
  'Actual Rows': number;
  'Actual Loops': number;
  'Rows Removed by Filter'?: number;
  Plans?: PlanNode[];
}
const nodesOf = (node: PlanNode): PlanNode[] => [node, ...(node.Plans ?? []).flatMap(nodesOf)];

/** Entries that a scan takes up, whether it keeps them or not. */
const touchedBy = (node: PlanNode): number =>
  (node['Actual Rows'] + (node['Rows Removed by Filter'] ?? 0)) * node['Actual Loops'];

/**
 * Where the statements behind a request read the journal, or all bags, from end to end.
 * @param most entries of the journal that one of them may take up besides; more than that is said too
 */
async function readWhole(path: string, most = Infinity): Promise<string[]> {
  seen.length = 0;
  const { status } = await ines.get(path);
  expect(status).toBe(200);
  const asked = seen.filter(({ query }) => /^\s*(SELECT|WITH)/.test(query) && /\b(fact|bag)\b/.test(query));
  const whole: string[] = [];
  for (const { query, parameters } of [...asked]) {
    const [row] = await test.server.db.query<{ 'QUERY PLAN': [{ Plan: PlanNode }] }[]>(
      `EXPLAIN (ANALYZE, FORMAT JSON) ${query}`,
      parameters,
    );
    for (const node of nodesOf(row!['QUERY PLAN'][0].Plan)) {
      const table = node['Relation Name'] ?? '';
      if (node['Node Type'] === 'Seq Scan' && ['fact', 'bag'].includes(table)) whole.push(`${table}: ${query}`);
      else if (table === 'fact' && touchedBy(node) > most) whole.push(`${touchedBy(node)} entries: ${query}`);
    }
  }
  return whole;
}

/** A statement's plan as a connection has it that has sent it often. */
const asPrepared = (query: string, parameters: unknown[]): Promise<{ 'QUERY PLAN': [{ Plan: PlanNode }] }[]> =>
  test.server.db.transaction(async (tx) => {
    await tx.query('SET LOCAL plan_cache_mode = force_generic_plan');
    await tx.query(`PREPARE told (jsonb) AS ${query}`);
    try {
      return await tx.query(
        `EXPLAIN (ANALYZE, FORMAT JSON) EXECUTE told ('${String(parameters[0]).replaceAll("'", "''")}')`,
      );
    } finally {
      await tx.query('DEALLOCATE told');
    }
  });

describe('what a bar asks for every day, in a house of many years', () => {
  it('never reads the whole journal, whichever way a page of it is asked for', async () => {
    const bar = await ines.bar();
    const groupId = bar.machines[0]!.groups[0]!.id;
    for (const query of [
      '',
      '&kind=lock',
      '&kind=step',
      `&personId=${leftId}`,
      `&grinderId=${retiredId}`,
      `&groupId=${groupId}`,
    ])
      expect(await readWhole(`/api/journal?limit=50${query}`), query).toEqual([]);
    expect(await readWhole('/api/journal?limit=50&beforeSeq=500')).toEqual([]);
  });

  it('keeps a fact in one statement, beside the one that says who writes it; several at one time in fewer', async () => {
    const FACTS = 20;
    const bar = await ines.bar();
    const siteId = (await ines.get<Session>('/api/session')).body.site.id;
    const post = async (): Promise<void> => {
      const fact = { ...factOf(bar, siteId, 'shot', shotBody(bar)), personId: ines.personId };
      expect((await ines.send('POST', '/api/facts', fact)).status).toBe(201);
    };
    // The memory of this old house is being made beside it: facts are heard, snapshots kept, and browsers told.
    const beside = /^SELECT f\.id, f\.kind, to_char|bar_memory|'memory'/;
    const own = () => seen.filter(({ query }) => !beside.test(query));
    const notices = () => own().filter(({ query }) => query.includes('pg_notify'));
    seen.length = 0;
    for (let i = 0; i < FACTS; i += 1) await post();
    expect(own().length - notices().length).toBe(2 * FACTS);
    seen.length = 0;
    await Promise.all(Array.from({ length: FACTS }, post));
    expect(own().length - notices().length).toBeLessThanOrEqual(2 * FACTS);
    expect(notices().length).toBeLessThan(FACTS);

    const keeps = keeper(test.server.db);
    const { personId } = ines;
    const told = Array.from({ length: FACTS }, () => ({
      fact: { ...factOf(bar, siteId, 'shot', shotBody(bar)), personId, skewMs: 0 },
      approvedBy: null,
    }));
    seen.length = 0;
    await Promise.all(told.map(keeps));
    // The first does not wait, and the others go together.
    expect(seen.filter(({ query }) => query.includes('INSERT INTO fact'))).toHaveLength(2);
  });

  it('looks nothing up but by its key to keep an entry, whatever it names', async () => {
    const bar = await ines.bar();
    const siteId = (await ines.get<Session>('/api/session')).body.site.id;
    const bench = await ines.get<Bench>(`/api/benches/${bar.grinders[0]!.id}`);
    const shots = bench.body.facts.filter(({ kind }) => kind === 'shot');
    const bagIn = await test.server.db.query<{ id: string; coffeeId: string }[]>(
      'SELECT id, coffee_id AS "coffeeId" FROM bag LIMIT 1',
    );
    const locked = {
      setting: 30,
      doseTimeS: null,
      chance: 0.9,
      expected: { timeS: 27, lowS: 25, highS: 29 },
      nextCheckMin: 60,
    };
    const recipeVersionId = (shots[0]!.body as { recipeVersionId: string }).recipeVersionId;
    for (const fact of [
      factOf(bar, siteId, 'shot', shotBody(bar)),
      factOf(bar, siteId, 'lock', { ...locked, recipeVersionId, shotIds: shots.map(({ id }) => id) }),
      factOf(bar, siteId, 'newBag', { roastedOn: null, bagId: bagIn[0]!.id, coffeeId: bagIn[0]!.coffeeId }),
      factOf(bar, siteId, 'correction', { factId: shots[0]!.id, withdrawn: true, shot: null }),
    ]) {
      seen.length = 0;
      expect((await ines.send('POST', '/api/facts', { ...fact, personId: ines.personId })).status, fact.kind).toBe(201);
      const keeping = seen.find(({ query }) => query.includes('INSERT INTO fact'))!;
      // As it is planned for whatever will be told, and not for this one.
      const [row] = await asPrepared(keeping.query, keeping.parameters);
      const scans = nodesOf(row!['QUERY PLAN'][0].Plan).filter(
        (node) => ['fact', 'bag'].includes(node['Relation Name'] ?? '') && node['Node Type'] !== 'ModifyTable',
      );
      expect(scans.length).toBeGreaterThan(3);
      for (const node of scans) {
        expect(node['Node Type'], JSON.stringify(node)).toMatch(/^Index (Only )?Scan$/);
        expect(touchedBy(node), JSON.stringify(node)).toBeLessThanOrEqual(shots.length);
      }
    }
  });

  it('finds what is retired, and whoever left, years back', async () => {
    const of = async (query: string) => (await ines.get<JournalPage>(`/api/journal?limit=20&${query}`)).body.facts;
    expect(await of(`grinderId=${retiredId}`)).toHaveLength(20);
    expect(await of(`personId=${leftId}`)).toHaveLength(20);
    const [newest, next] = await of(`grinderId=${retiredId}`);
    expect(newest!.seq).toBeGreaterThan(next!.seq);
  });

  it('takes up weeks of the journal and never its years, whatever a bar asks for every day', async () => {
    const grinderId = (await ines.bar()).grinders[0]!.id;
    for (const path of [
      '/bar',
      '/bar/learned',
      '/bar/upkeep',
      `/benches/${grinderId}`,
      '/opening/history',
      '/coffee/stock',
      '/coffee/use',
      `/day/history?grinderId=${grinderId}&days=7`,
      '/day/mornings?days=42',
      '/journal/changes',
    ])
      expect(await readWhole(`/api${path}`, MOST_TAKEN_UP), path).toEqual([]);
  });
});
