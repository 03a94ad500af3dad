import { routes } from '@tempera/contract/routes';
import type { Session, Welcome } from '@tempera/contract/team';
import { v4 as uuidv4, v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SiteEntity, PersonEntity, hashPin } from '../src/team/index.ts';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
beforeAll(async () => {
  test = await startTestServer();
});
afterAll(() => test.close());

const personId = async (name: string): Promise<string> => {
  const { body } = await new TestClient(test).get<Welcome>('/api/welcome');
  return body.sites[0]?.people.find((person) => person.name === name)?.id ?? '';
};

describe('signing in', () => {
  it('keeps the session in a cookie that scripts cannot read', async () => {
    const client = new TestClient(test);
    const { body: welcome } = await client.get<Welcome>('/api/welcome');
    const id = await personId('Ines');
    const answer = await client.send<Session>('POST', '/api/session', { personId: id, pin: welcome.demo?.pins[id] });
    expect(answer.status).toBe(201);
    expect(answer.headers.getSetCookie()[0]).toMatch(/HttpOnly/);
    expect(answer.headers.getSetCookie()[0]).toMatch(/SameSite=Strict/);
    expect((await client.get<Session>('/api/session')).body.person).toMatchObject({ name: 'Ines', role: 'head' });
  });

  it.each(['/api/bar', '/api/journal', '/api/live', '/api/journal/shots.csv'])(
    'GET %s wants a session',
    async (path) => {
      const { status, problem } = await new TestClient(test).get(path);
      expect(status).toBe(401);
      expect(problem.code).toBe('signInFirst');
    },
  );

  it('is nobody before anyone signed in, without an error', async () => {
    const { status, body } = await new TestClient(test).get('/api/session');
    expect({ status, body }).toEqual({ status: 200, body: null });
  });

  it('ends at sign-out, for a stolen cookie too', async () => {
    const client = await new TestClient(test).signIn();
    const stolen = client.cookie;
    await client.send('DELETE', '/api/session');
    client.cookie = stolen;
    expect((await client.get('/api/bar')).status).toBe(401);
  });

  it('says how many tries are left, then makes one wait, and tells nobody else to', async () => {
    const client = new TestClient(test);
    const id = await personId('Pell');
    const wrong = () => client.send('POST', '/api/session', { personId: id, pin: '0000' });
    const tries = [];
    for (let i = 0; i < 5; i += 1) tries.push(await wrong());
    expect(tries[0]?.problem.detail).toContain('4 tries left');
    expect(tries[4]?.problem).toMatchObject({ code: 'pinWait', status: 429, retryAfterS: 30 });
    const rightButLate = await client.send('POST', '/api/session', { personId: id, pin: '7531' });
    expect(rightButLate.status).toBe(429);
    expect(Number(rightButLate.headers.get('retry-after'))).toBeGreaterThan(0);
    expect((await new TestClient(test).signIn('Noor')).cookie).not.toBe('');
  });

  it('counts guesses that come at the same moment', async () => {
    const id = await personId('Tobin');
    const guess = (pin: string) => new TestClient(test).send('POST', '/api/session', { personId: id, pin });
    await Promise.all(Array.from({ length: 12 }, (_, i) => guess(String(1000 + i))));
    expect((await guess('1357')).problem.code).toBe('pinWait');
  });

  it('keeps no PIN in the clear', async () => {
    const rows = await test.server.db.query<{ pin_hash: string }[]>('SELECT pin_hash FROM person');
    for (const { pin_hash: pinHash } of rows) expect(pinHash).toMatch(/^\$argon2id\$/);
  });

  it.each([{}, { personId: 1 }, { personId: 'x', pin: '1' }, { personId: uuidv4(), pin: 'abcd' }, []])(
    'refuses %j without a 500',
    async (body) => {
      expect((await new TestClient(test).send('POST', '/api/session', body)).status).toBe(422);
    },
  );

  it('knows nobody by a made-up id', async () => {
    const { status } = await new TestClient(test).send('POST', '/api/session', { personId: uuidv7(), pin: '1234' });
    expect(status).toBe(404);
  });
});

describe('a PIN of a while ago', () => {
  it('signs nothing, and changes nobody’s rights, until it is given once more', async () => {
    const ines = await new TestClient(test).signIn('Ines');
    const bar = await ines.bar();
    const { siteId } = bar.facts[0]!;
    const aged = (minutes: number) =>
      test.server.db.query(`UPDATE session SET proven_at = now() - make_interval(mins => $1) WHERE person_id = $2`, [
        minutes,
        ines.personId,
      ]);
    const sign = (minutesAgo = 0) =>
      ines.send('POST', '/api/facts', {
        ...factOf(bar, siteId, 'shot', shotBody(bar)),
        ...{ kind: 'step', grinderId: null, groupId: null, body: { step: 'signedOff', notRight: [] } },
        at: new Date(Date.now() - minutesAgo * 60_000).toISOString(),
      });
    await aged(14);
    expect((await sign()).status).toBe(201);
    await aged(16);
    const refused = await sign();
    expect([refused.status, refused.problem.code]).toEqual([403, 'pinAgain']);
    // What was signed offline two minutes after the PIN is as good when it arrives later.
    expect((await sign(14)).status).toBe(201);
    // Every route that the table calls so asks for it, before it looks at anything else; work at the bar goes on.
    const surely = Object.entries(routes).filter(([, route]) => 'surely' in route);
    expect(surely.map(([key]) => key)).toEqual(
      expect.arrayContaining(['POST /house/policies', 'PUT /team/people/{id}', 'POST /team/people/{id}/code']),
    );
    for (const [key] of surely) {
      const [method = '', path = ''] = key.split(' ');
      const { problem } = await ines.send(method, `/api${path.replaceAll(/\{\w+\}/g, uuidv4())}`, {});
      expect([key, problem.code]).toEqual([key, 'pinAgain']);
    }
    expect((await ines.send('POST', '/api/facts', factOf(bar, siteId, 'shot', shotBody(bar)))).status).toBe(201);

    const wrong = await ines.send('POST', '/api/session/proof', { pin: '1111' });
    expect([wrong.status, wrong.problem.code]).toEqual([401, 'wrongPin']);
    // She has no password: whatever is typed is not hers.
    const none = await ines.send('POST', '/api/session/proof', { password: 'a long password of nobody' });
    expect([none.status, none.problem.code]).toEqual([401, 'wrongPassword']);
    expect((await sign()).status).toBe(403);
    const proven = await ines.send<Session>('POST', '/api/session/proof', { pin: '2468' });
    expect(Date.now() - Date.parse(proven.body.provenAt ?? '')).toBeLessThan(60_000);
    expect((await sign()).status).toBe(201);
  });
});

describe('two cafés in one database', () => {
  it('never shows or takes anything across', async () => {
    const ines = await new TestClient(test).signIn('Ines');
    const bar = await ines.bar();
    const { siteId } = bar.facts[0]!;
    const otherSite = {
      id: uuidv4(),
      name: 'Another',
      timeZone: 'Europe/Lisbon',
      roomWidthCm: 100,
      roomDepthCm: 100,
      sureness: 0.9,
      risk: 0.2,
    };
    const stranger = {
      id: uuidv4(),
      siteId: otherSite.id,
      name: 'Stranger',
      role: 'head' as const,
      pinHash: await hashPin('9999'),
      failedAttempts: 0,
      waitUntil: null,
    };
    await test.server.db.getRepository(SiteEntity).insert(otherSite);
    await test.server.db.getRepository(PersonEntity).insert(stranger);

    const there = new TestClient(test);
    await there.send('POST', '/api/session', { personId: stranger.id, pin: '9999' });
    there.personId = stranger.id;
    expect((await there.bar()).facts).toEqual([]);
    expect((await there.get<{ facts: [] }>('/api/journal')).body.facts).toEqual([]);
    expect((await there.get(`/api/benches/${bar.grinders[0]!.id}`)).problem.code).toBe('unknownStation');
    expect((await there.get<string>('/api/journal/shots.csv')).body.trim().split('\n')).toHaveLength(1);
    const smuggled = factOf(bar, otherSite.id, 'shot', shotBody(bar));
    expect((await there.send('POST', '/api/facts', smuggled)).problem.code).toBe('unknownStation');
    expect((await there.send('POST', '/api/facts', { ...smuggled, siteId })).problem.code).toBe('wrongSite');
  });
});
