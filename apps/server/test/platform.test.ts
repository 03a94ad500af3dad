import { sentences } from '@tempera/contract/sentences';
import type { RecordedFact } from '@tempera/contract/journal';
import type { Joined } from '@tempera/contract/live';
import type { Kept } from '@tempera/contract/sheet';
import type { SheetOf } from '@tempera/contract/sheets';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readConfig } from '../src/kernel/config.ts';
import { factOf, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
beforeAll(async () => {
  test = await startTestServer();
});
afterAll(() => test.close());

/** Reads server-sent events until one of the wanted kind has come. */
async function nextEvent(
  stream: ReadableStreamDefaultReader<Uint8Array>,
  kind: string,
): Promise<{ data: string; tookMs: number; before: string }> {
  const began = performance.now();
  const decoder = new TextDecoder();
  let text = '';
  for (;;) {
    const { value, done } = await stream.read();
    if (done) throw new Error(`stream ended before ${kind}; had ${text}`);
    text += decoder.decode(value, { stream: true });
    const found = new RegExp(`event: ${kind}\\ndata: (.*)\\n\\n`).exec(text);
    if (found?.[1] !== undefined)
      return { data: found[1], tookMs: performance.now() - began, before: text.slice(0, found.index) };
  }
}

describe('the live stream', () => {
  const watch = async (headers: Record<string, string> = {}) => {
    const { cookie } = await new TestClient(test).signIn('Noor');
    const stream = (await fetch(`${test.base}/api/live`, { headers: { cookie, ...headers } })).body!.getReader();
    return { stream, joined: await nextEvent(stream, 'joined') };
  };
  const writer = async () => {
    const client = await new TestClient(test).signIn('Ines');
    const bar = await client.bar();
    return async (purgeG: number): Promise<RecordedFact> => {
      const fact = factOf(bar, bar.facts[0]!.siteId, 'purge', { purgeG });
      return (await client.send<RecordedFact>('POST', '/api/facts', fact)).body;
    };
  };
  const loseNotices = async (): Promise<void> => {
    const admin = new pg.Client({ connectionString: test.adminUrl });
    await admin.connect();
    await admin.query(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN%' AND datname = current_database()`,
    );
    await admin.end();
  };

  it('brings a fact to another browser, and after a lost database connection what was missed, by its place', async () => {
    const { stream } = await watch();
    const write = await writer();
    const [{ data, tookMs }, first] = await Promise.all([nextEvent(stream, 'fact'), write(9)]);
    expect(JSON.parse(data) as RecordedFact).toMatchObject({ id: first.id, body: { purgeG: 9 } });
    expect(tookMs).toBeLessThan(1_000);

    await loseNotices();
    const [missed, second] = await Promise.all([nextEvent(stream, 'fact'), write(10)]);
    expect((JSON.parse(missed.data) as RecordedFact).id).toBe(second.id);
    expect(missed.before).not.toContain('resync');
    const [again, third] = await Promise.all([nextEvent(stream, 'fact'), write(11)]);
    expect((JSON.parse(again.data) as RecordedFact).id).toBe(third.id);
    await stream.cancel();
  });

  it('lets all be read again where the house was changed while no notice came', async () => {
    const { stream } = await watch();
    const ines = await new TestClient(test).signIn('Ines');
    const drinks = await ines.get<{ sheets: Kept<SheetOf<'drink'>>[] }>('/api/house/drinks');
    const { id, revision, retired, sheet } = drinks.body.sheets[0]!;
    await loseNotices();
    const change = { basedOn: revision, retired, sheet: { ...sheet, orders: 6 } };
    await Promise.all([nextEvent(stream, 'resync'), ines.send('PUT', `/api/house/drinks/${id}`, change)]);
    await stream.cancel();
  });

  it('sends a browser that comes back the facts that it missed, and no others for news', async () => {
    const { stream, joined } = await watch();
    const write = await writer();
    await stream.cancel();
    const place = (/id: (\d+)\n$/.exec(joined.before) ?? [])[1] ?? '';
    const missed = [await write(12), await write(13)];
    const back = await watch({ 'last-event-id': place });
    for (const { id } of missed) expect(back.joined.before).toContain(id);
    const { lastMs } = JSON.parse(back.joined.data) as Joined;
    // The house was changed before: that is the last that it would have to read again.
    expect(lastMs).toBeLessThan(Date.parse(missed[0]!.receivedAt));
    await back.stream.cancel();

    const beyond = await watch({ 'last-event-id': '900000000' });
    expect((JSON.parse(beyond.joined.data) as Joined).lastMs).toBe(Date.parse(missed[1]!.receivedAt));
    await beyond.stream.cancel();
  });
});

describe('news of the house', () => {
  it('name what was changed, and whoever joins is told when the last news was', async () => {
    const ines = await new TestClient(test).signIn('Ines');
    const join = async () => {
      const stream = (await fetch(`${test.base}/api/live`, { headers: { cookie: ines.cookie } })).body!.getReader();
      const { atMs, lastMs } = JSON.parse((await nextEvent(stream, 'joined')).data) as Joined;
      return { stream, atMs, lastMs: lastMs ?? 0 };
    };
    const { stream, atMs, lastMs } = await join();
    expect(Math.abs(Date.now() - atMs)).toBeLessThan(5_000);
    const sheets = await ines.get<{ sheets: Kept<SheetOf<'drink'>>[] }>('/api/house/drinks');
    const { id, revision, retired, sheet } = sheets.body.sheets[0]!;
    const change = { basedOn: revision, retired, sheet: { ...sheet, orders: 7 } };
    const [{ data }] = await Promise.all([
      nextEvent(stream, 'changed'),
      ines.send('PUT', `/api/house/drinks/${id}`, change),
    ]);
    expect(JSON.parse(data)).toEqual({ what: 'drink' });
    await stream.cancel();
    const after = await join();
    expect(after.lastMs).toBeGreaterThan(lastMs);
    await after.stream.cancel();
    const bar = await ines.bar();
    await ines.send('POST', '/api/facts', factOf(bar, bar.facts[0]!.siteId, 'purge', { purgeG: 8 }));
    const last = await join();
    expect(last.lastMs).toBeGreaterThan(after.lastMs);
    await last.stream.cancel();
  });
});

describe('a notice that was missed', () => {
  it('ends the stream of an ended session all the same, once the database is listened to again', async () => {
    const watcher = await new TestClient(test).signIn('Noor');
    const response = await fetch(`${test.base}/api/live`, { headers: { cookie: watcher.cookie } });
    const stream = response.body!.getReader();
    await nextEvent(stream, 'joined');
    const admin = new pg.Client({ connectionString: test.adminUrl });
    await admin.connect();
    // Ended without a notice, as while the connection was lost.
    await admin.query('DELETE FROM session WHERE person_id = $1', [watcher.personId]);
    await admin.query(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN%' AND datname = current_database()`,
    );
    await admin.end();
    for (let read = await stream.read(); !read.done; read = await stream.read());
  });
});

describe('another site', () => {
  it('is refused whatever it asks to change, and reads nothing', async () => {
    const client = await new TestClient(test).signIn('Ines');
    const post = (headers: Record<string, string>) => client.send('POST', '/api/facts', {}, headers);
    for (const origin of ['https://elsewhere.example', 'null', `${test.base}.elsewhere.example`]) {
      const answer = await post({ origin });
      expect([answer.status, answer.problem.code]).toEqual([403, 'otherSite']);
    }
    expect((await post({ 'sec-fetch-site': 'cross-site' })).status).toBe(403);
    // The app itself, and what is no browser.
    expect((await post({ origin: test.base })).status).toBe(422);
    expect((await post({})).status).toBe(422);
  });
});

describe('a restart', () => {
  it('keeps every fact and every session', async () => {
    const client = await new TestClient(test).signIn('Ines');
    const bar = await client.bar();
    const fact = factOf(bar, bar.facts[0]!.siteId, 'purge', { purgeG: 11 });
    await client.send('POST', '/api/facts', fact);
    await test.restart();
    expect((await client.bar()).facts.map(({ id }) => id)).toContain(fact.id);
  });
});

describe('the house keeping', () => {
  it('says whether it lives and whether it is ready', async () => {
    const client = new TestClient(test);
    expect((await client.get('/healthz')).body).toEqual({ status: 'ok' });
    expect((await client.get('/readyz')).body).toEqual({ status: 'ready' });
  });

  it('sends the headers that keep a page to itself', async () => {
    const { headers } = await new TestClient(test).get('/api/welcome');
    expect(headers.get('content-security-policy')).toBe("default-src 'none';frame-ancestors 'none'");
    const page = await new TestClient(test).get('/');
    expect(page.headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-powered-by')).toBeNull();
    expect(headers.get('cache-control')).toBe('no-store');
  });

  it('has entities that say what the migrations made', async () => {
    const { upQueries } = await test.server.db.driver.createSchemaBuilder().log();
    expect(upQueries.map(({ query }) => query)).toEqual([]);
  });

  it('has the site on every table', async () => {
    const rows = await test.server.db.query<{ name: string }[]>(
      `SELECT t.table_name AS name FROM information_schema.tables t
        WHERE t.table_schema = 'public' AND t.table_name NOT IN ('migration', 'site') AND NOT EXISTS (
          SELECT 1 FROM information_schema.columns c WHERE c.table_name = t.table_name AND c.column_name = 'site_id')`,
    );
    expect(rows).toEqual([]);
  });

  it('serves the journal and the benches from their indexes', async () => {
    const siteId = (await (await new TestClient(test).signIn('Ines')).bar()).facts[0]!.siteId;
    const runner = test.server.db.createQueryRunner();
    await runner.query('SET enable_seqscan = off');
    const plan = async (sql: string): Promise<string> => JSON.stringify(await runner.query(`EXPLAIN ${sql}`));
    expect(await plan(`SELECT * FROM fact WHERE site_id = '${siteId}' ORDER BY seq DESC LIMIT 50`)).toMatch(/fact_\w+/);
    expect(
      await plan(`SELECT at FROM fact WHERE grinder_id = '${siteId}' AND kind = 'lock' ORDER BY at DESC LIMIT 1`),
    ).toContain('fact_lock_ix');
    await runner.query('RESET enable_seqscan');
    await runner.release();
  });

  it('explains a missing or wrong setting in one sentence', () => {
    expect(() => readConfig({}, null)).toThrow(/DATABASE_URL/);
    expect(() => readConfig({ DATABASE_URL: 'postgres://x', PORT: 'high' }, null)).toThrow(/PORT/);
  });

  it('ends every sentence as a sentence', () => {
    for (const sentence of Object.values(sentences)) {
      if (typeof sentence === 'string') expect(sentence).toMatch(/^[A-Z].*\.$/);
    }
  });
});
