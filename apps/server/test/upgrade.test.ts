import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { Bar, MachineSheet } from '@tempera/contract/bar';
import type { JournalPage } from '@tempera/contract/journal';
import type { CoffeeUse, Stock } from '@tempera/contract/coffee';
import pg from 'pg';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { quietDemo } from '../../../tools/setup/quietDemo.ts';
import { startServer, type RunningServer } from '../src/app/server.ts';
import { freshDatabase, TestClient } from './harness.ts';

/** A database as an earlier version left it: a real dump of the demo café with its six weeks, brought up to date. */
const DUMP = path.join(import.meta.dirname, 'fixtures/demo-of-2026-11-24.sql.gz');
/** Facts in it, counted when it was taken. */
const FACTS = 3_019;

let server: RunningServer;
let client: TestClient;
let before: { kind: string; count: string; checksum: string }[];

const COUNTS = `SELECT kind, count(*) AS count, md5(string_agg(id::text || at || person_id || body, ',' ORDER BY seq)) AS checksum
  FROM fact GROUP BY kind ORDER BY kind`;

beforeAll(async () => {
  const databaseUrl = await freshDatabase('upgraded');
  const old = new pg.Client({ connectionString: databaseUrl });
  await old.connect();
  await old.query(gunzipSync(readFileSync(DUMP)).toString());
  // The dump leaves out who owns what, and an empty search path behind.
  await old.query(`SET search_path TO public; REVOKE UPDATE, DELETE, TRUNCATE ON fact FROM PUBLIC, CURRENT_USER`);
  await old.query(`UPDATE machine SET serviced_on = '2026-05-04'`);
  before = (await old.query<(typeof before)[number]>(COUNTS)).rows;
  await old.end();
  server = await startServer(quietDemo({ databaseUrl }), pino({ level: 'silent' }));
  client = await new TestClient({ base: `http://127.0.0.1:${server.port}` }).signIn('Ines');
});
afterAll(() => server.close());

describe('a database of an earlier version', () => {
  it('keeps every fact to the letter', async () => {
    expect(before.reduce((sum, { count }) => sum + Number(count), 0)).toBe(FACTS);
    expect(await server.db.query(COUNTS)).toEqual(before);
  });

  it('has the tables and indexes of a new one', async () => {
    const { upQueries } = await server.db.driver.createSchemaBuilder().log();
    expect(upQueries.map(({ query }) => query)).toEqual([]);
    const indexes = await server.db.query<{ name: string }[]>(
      `SELECT indexname AS name FROM pg_indexes WHERE indexname IN ('fact_heard_ix', 'fact_traced_ix')`,
    );
    expect(indexes).toHaveLength(2);
  });

  it('has what a machine’s sheet said of its service in the list of what is kept up', async () => {
    const { body } = await client.get<{ sheets: { sheet: MachineSheet }[] }>('/api/bar/machines');
    expect(body.sheets.length).toBeGreaterThan(0);
    for (const { sheet } of body.sheets)
      expect(sheet.upkeep.filter(({ what }) => what === 'service')).toMatchObject([{ lastOn: '2026-05-04' }]);
  });

  it('reads old facts by the rules of new ones, and remembers what they taught', async () => {
    const { body: page } = await client.get<JournalPage>('/api/journal?limit=200');
    for (const fact of page.facts) {
      expect(fact.deviceAt).toBe(fact.at);
      expect(fact.clock).toBeNull();
      expect(fact.at <= fact.receivedAt).toBe(true);
    }
    const bar = (await client.get<Bar>('/api/bar')).body;
    const heard = Object.values(bar.memory.state.grinders).reduce((sum, { shots }) => sum + shots, 0);
    const inDump = Number(before.find(({ kind }) => kind === 'shot')?.count);
    expect(heard).toBeGreaterThan(0.9 * inDump);
    expect((await client.get<Stock>('/api/coffee/stock')).body.bags.length).toBeGreaterThan(0);
    expect((await client.get<CoffeeUse>('/api/coffee/use')).status).toBe(200);
  });
});
