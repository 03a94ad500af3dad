import { policyOf, usualHouse, type Policies, type PolicyChange } from '@tempera/contract/policy';
import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import { v4 as uuidv4 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createDataSource } from '../src/app/db.ts';
import { FirstTables1795000000000 } from '../src/app/migrations/1795000000000-first-tables.ts';
import { SiteEntity } from '../src/team/index.ts';
import { freshDatabase, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
});
afterAll(() => test.close());

const policies = async (client = ines): Promise<Policies> => (await client.get<Policies>('/api/house/policies')).body;
const changeOf = async (change: Partial<PolicyChange> = {}): Promise<PolicyChange> => {
  const { versions } = await policies();
  const { version, ...rest } = versions[0]!;
  const reason = 'the Saturday crew asked for it';
  return { ...policyOf(rest), basedOn: version, reason, ...change };
};
const send = (client: TestClient, change: object) => client.send<Policies>('POST', '/api/house/policies', change);

describe("the house's policies", () => {
  it('are changed by a new version with a reason; the old one stays readable', async () => {
    const before = await policies();
    const { status, body } = await send(ines, await changeOf({ lockRule: 'oneRepeat', longestCheckMin: 45 }));
    expect(status).toBe(201);
    expect(body.versions[0]).toMatchObject({
      version: before.versions[0]!.version + 1,
      lockRule: 'oneRepeat',
      longestCheckMin: 45,
      reason: 'the Saturday crew asked for it',
      changedBy: 'Ines',
    });
    expect(body.versions.slice(1)).toEqual(before.versions);
    expect((await ines.bar()).house).toMatchObject({ lockRule: 'oneRepeat', longestCheckMin: 45 });
  });

  it('answer the same change sent twice as done, once', async () => {
    const change = await changeOf({ sureness: 0.95 });
    await send(ines, change);
    const { status, body } = await send(ines, change);
    expect(status).toBe(201);
    expect(body.versions[0]).toMatchObject({ version: change.basedOn + 1, sureness: 0.95 });
  });

  it('tell the slower of two that somebody was faster, and keep what the faster one chose', async () => {
    const seen = await changeOf();
    await send(ines, { ...seen, risk: 0.1 });
    const { status, problem } = await send(ines, { ...seen, risk: 0.3 });
    expect(status).toBe(409);
    expect(problem.code).toBe('changedMeanwhile');
    expect((await policies()).versions[0]).toMatchObject({ risk: 0.1 });
  });

  it('take only one of many changes that arrive at once', async () => {
    const seen = await changeOf();
    const answers = await Promise.all(
      [11, 12, 13, 14, 15].map((n) => send(ines, { ...seen, longestCheckMin: 10 * n })),
    );
    expect(answers.filter(({ status }) => status === 201)).toHaveLength(1);
    expect((await policies()).versions[0]!.version).toBe(seen.basedOn + 1);
  });

  it('are changed by a head barista only, and read by all', async () => {
    const tobin = await new TestClient(test).signIn('Tobin');
    const { status, problem } = await send(tobin, await changeOf());
    expect(status).toBe(403);
    expect(problem.detail).toContain('head barista');
    expect(await policies(tobin)).toEqual(await policies());
  });

  it.each([
    [{ sureness: 0.3 }, 'sureness', '60 and 99'],
    [{ risk: 0.9 }, 'risk', '2 and 50'],
    [{ longestCheckMin: 5 }, 'longestCheckMin', '10 and 240'],
    [{ reason: '  ' }, 'reason', 'why'],
    [{ lockRule: 'byFeel' }, 'lockRule', ''],
  ])('refuse %o with a sentence at its field', async (change, path, words) => {
    const { status, problem } = await send(ines, { ...(await changeOf()), ...change });
    expect(status).toBe(422);
    expect(problem.fields).toEqual([
      expect.objectContaining({ path, message: expect.stringContaining(words) as string }),
    ]);
  });

  it('cannot be rewritten or deleted', async () => {
    for (const sql of [
      'UPDATE policy_version SET version = 7',
      'DELETE FROM policy_version',
      'TRUNCATE policy_version',
    ]) {
      await expect(test.server.db.query(sql)).rejects.toThrow(/append-only|permission denied/);
    }
  });

  it('that came later than a version stand as they usually do', async () => {
    const { policyVersions } = await import('../src/house/index.ts');
    const siteId = uuidv4();
    const { db } = test.server;
    await db.query(
      `INSERT INTO site (id, name, time_zone, room_width_cm, room_depth_cm) VALUES ($1, 'Kiosk', 'UTC', 300, 200)`,
      [siteId],
    );
    await db.query(
      `INSERT INTO policy_version (id, site_id, version, choices) VALUES ($1, $2, 1, '{"sureness": 0.9, "trim": "none"}')`,
      [uuidv4(), siteId],
    );
    expect(await policyVersions(db, siteId)).toEqual([
      expect.objectContaining({ ...usualHouse, sureness: 0.9, trim: 'none', version: 1 }),
    ]);
  });

  it('are the usual ones in a café that never chose', async () => {
    const id = uuidv4();
    await test.server.db
      .getRepository(SiteEntity)
      .insert({ id, name: 'Annex', timeZone: 'Europe/Lisbon', roomWidthCm: 300, roomDepthCm: 200 });
    const { policyVersions } = await import('../src/house/index.ts');
    expect(await policyVersions(test.server.db, id)).toEqual([
      expect.objectContaining({ version: 0, lockRule: 'sureness', changedBy: null }),
    ]);
  });
});

describe('an older database', () => {
  it('keeps its sureness and risk as the first version', async () => {
    const url = await freshDatabase(`old_${randomUUID().replaceAll('-', '')}`);
    const old = await new DataSource({
      type: 'postgres',
      url,
      migrations: [FirstTables1795000000000],
      migrationsTableName: 'migration',
    }).initialize();
    await old.runMigrations();
    const id = uuidv4();
    await old.query(`INSERT INTO site VALUES ($1, 'Old bar', 'Europe/Lisbon', 300, 200, 0.87, 0.15)`, [id]);
    await old.destroy();

    const today = await createDataSource(url).initialize();
    await today.runMigrations();
    const { policyVersions } = await import('../src/house/index.ts');
    const versions = await policyVersions(today, id);
    await today.destroy();
    expect(versions).toEqual([
      expect.objectContaining({
        ...usualHouse,
        version: 1,
        sureness: 0.87,
        risk: 0.15,
        lockRule: 'sureness',
        // What was usual then.
        longestCheckMin: 60,
      }),
    ]);
  });
});
