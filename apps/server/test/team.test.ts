import type { Changes } from '@tempera/contract/changes';
import type { Kept } from '@tempera/contract/sheet';
import { lacking, mayAlone, skillsAtBench } from '@tempera/contract/signOffs';
import type { PersonSheet, Role, Session, Welcome } from '@tempera/contract/team';
import { v4 as uuidv4 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isCommonPin } from '../src/team/pin.ts';
import { startTestServer, TestClient, type TestServer } from './harness.ts';

/** Within a second; a loaded machine is given more. */
const AT_ONCE_MS = 5_000;

let test: TestServer;
let ines: TestClient;
beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
});
afterAll(() => test.close());

type People = { sheets: Kept<PersonSheet>[] };
const everyone = async (): Promise<Kept<PersonSheet>[]> => (await ines.get<People>('/api/team/people')).body.sheets;
const named = async (name: string): Promise<Kept<PersonSheet>> => {
  const found = (await everyone()).find(({ sheet }) => sheet.name === name);
  if (!found) throw new Error(`nobody is called ${name}`);
  return found;
};
type SentSheet = Omit<PersonSheet, 'signOffs'> & Partial<Pick<PersonSheet, 'signOffs'>>;
const keep = (who: TestClient, id: string, sheet: SentSheet, basedOn = 0, retired = false) =>
  who.send<Kept<PersonSheet>>('PUT', `/api/team/people/${id}`, { basedOn, retired, sheet });
const handCode = (who: TestClient, id: string) => who.send<{ code: string }>('POST', `/api/team/people/${id}/code`);
const first = (who: TestClient, personId: string, code: string, pin: string) =>
  who.send<Session>('POST', '/api/session/first', { personId, code, pin });

/** Somebody new, with a PIN of their own. */
async function newcomer(name: string, role: Role, pin = '4951'): Promise<{ id: string; client: TestClient }> {
  const id = uuidv4();
  expect((await keep(ines, id, { name, role })).status).toBe(200);
  const { body } = await handCode(ines, id);
  const client = new TestClient(test);
  expect((await first(client, id, body.code, pin)).status).toBe(201);
  client.personId = id;
  return { id, client };
}

describe('somebody new', () => {
  it('is taken in by a head, sets a PIN by a code that works once, and signs in by it', async () => {
    const id = uuidv4();
    await keep(ines, id, { name: 'Maren', role: 'barista' });
    const { body: welcome } = await new TestClient(test).get<Welcome>('/api/welcome');
    expect(welcome.sites[0]?.people.find((person) => person.id === id)).toMatchObject({ name: 'Maren', hasPin: false });
    const client = new TestClient(test);
    const early = await client.signInWith(id, '4951');
    expect([early.status, early.problem.code]).toEqual([401, 'noPinYet']);
    const { body, status } = await handCode(ines, id);
    expect([status, body.code]).toEqual([201, expect.stringMatching(/^\d{8}$/)]);
    const wrong = await first(client, id, body.code === '00000000' ? '00000001' : '00000000', '4951');
    expect([wrong.status, wrong.problem.code]).toEqual([401, 'wrongPin']);
    const common = await first(client, id, body.code, '1234');
    expect([common.status, common.problem.code]).toEqual([422, 'commonPin']);
    // As somebody reads it off a slip: in two groups.
    const typed = `${body.code.slice(0, 4)} ${body.code.slice(4)}`;
    expect((await first(client, id, typed, '4951')).body.person).toMatchObject({ name: 'Maren', role: 'barista' });
    expect((await first(new TestClient(test), id, body.code, '9184')).problem.code).toBe('wrongPin');
    expect((await new TestClient(test).signInWith(id, '4951')).status).toBe(201);
  });

  it('has one name among those in the house; whoever left may have had it', async () => {
    const { id } = await newcomer('Sorrel', 'trainee');
    expect((await keep(ines, uuidv4(), { name: 'Sorrel', role: 'barista' })).problem.code).toBe('nameTaken');
    await keep(ines, id, { name: 'Sorrel', role: 'trainee' }, 1, true);
    expect((await keep(ines, uuidv4(), { name: 'Sorrel', role: 'barista' })).status).toBe(200);
  });
});

describe('somebody who left', () => {
  it('is signed out everywhere, cannot come in, is not offered, and their history stays', async () => {
    const { id, client } = await newcomer('Alder', 'barista');
    expect((await client.get('/api/bar')).status).toBe(200);
    expect((await keep(ines, id, { name: 'Alder', role: 'barista' }, 1, true)).status).toBe(200);
    expect((await client.get('/api/bar')).status).toBe(401);
    expect((await new TestClient(test).signInWith(id, '4951')).problem.code).toBe('retiredPerson');
    const { body: welcome } = await new TestClient(test).get<Welcome>('/api/welcome');
    expect(welcome.sites[0]?.people.map((person) => person.name)).not.toContain('Alder');
    expect((await named('Alder')).retired).toBe(true);
  });
});

describe('a new PIN', () => {
  it('by code voids the old one and ends every session', async () => {
    const { id, client } = await newcomer('Briar', 'barista');
    await handCode(ines, id);
    expect((await client.get('/api/bar')).status).toBe(401);
    expect((await new TestClient(test).signInWith(id, '4951')).problem.code).toBe('noPinYet');
  });

  it('of one’s own needs the old one, and ends the other sessions', async () => {
    const { id, client } = await newcomer('Clover', 'barista');
    const phone = new TestClient(test);
    await phone.signInWith(id, '4951');
    const wrong = await client.send('PUT', '/api/session/pin', { pin: '9999', newPin: '8315' });
    expect([wrong.status, wrong.problem.code]).toEqual([401, 'wrongPin']);
    expect((await client.send('PUT', '/api/session/pin', { pin: '4951', newPin: '8315' })).status).toBe(204);
    expect((await phone.get('/api/bar')).status).toBe(401);
    expect((await client.get('/api/bar')).status).toBe(200);
    expect((await new TestClient(test).signInWith(id, '8315')).status).toBe(201);
  });
});

describe('heads', () => {
  it('are made and unmade by heads; the last one stays, however two of them try', async () => {
    const { client: office } = await newcomer('Linden', 'office');
    const maren = await named('Ines');
    expect((await keep(office, uuidv4(), { name: 'Fern', role: 'trainee' })).status).toBe(200);
    expect((await keep(office, uuidv4(), { name: 'Holly', role: 'head' })).problem.code).toBe('headOnly');
    expect((await handCode(office, maren.id)).problem.code).toBe('headOnly');
    for (const [role, retired] of [
      ['barista', false],
      ['head', true],
    ] as const) {
      const refused = await keep(ines, maren.id, { name: 'Ines', role }, maren.revision, retired);
      expect([refused.status, refused.problem.code]).toEqual([409, 'lastHead']);
    }
    const second = await newcomer('Rowan', 'head');
    // Each unmakes the other, at once.
    const both = await Promise.all([
      keep(ines, second.id, { name: 'Rowan', role: 'barista' }, 1),
      keep(second.client, maren.id, { name: 'Ines', role: 'barista' }, maren.revision),
    ]);
    expect(both.map(({ status }) => status).toSorted()).not.toEqual([200, 200]);
    expect(both.every(({ status }) => status < 500)).toBe(true);
    // Whoever is left makes the other one head again.
    if (both[1].status === 200) await keep(second.client, maren.id, { name: 'Ines', role: 'head' }, maren.revision + 1);
    expect((await everyone()).filter(({ sheet, retired }) => sheet.role === 'head' && !retired).length).toBeGreaterThan(
      0,
    );
  });

  it.each(['barista', 'trainee'] as const)('a %s keeps no list of people, and hands out no code', async (role) => {
    const { client, id } = await newcomer(`Somebody who is a ${role}`, role);
    expect((await keep(client, uuidv4(), { name: 'Nettle', role: 'trainee' })).status).toBe(403);
    expect((await handCode(client, id)).status).toBe(403);
    expect((await client.get('/api/team/access')).status).toBe(403);
  });
});

describe('a session', () => {
  it('ends when somebody signs in over it, and takes its stream of news with it within a second', async () => {
    const tablet = await new TestClient(test).signIn('Noor');
    const before = tablet.cookie;
    const stream = await fetch(`${test.base}/api/live`, { headers: { cookie: before } });
    const reader = stream.body?.getReader();
    await reader?.read();
    await tablet.signIn('Tobin');
    const old = new TestClient(test);
    old.cookie = before;
    expect((await old.get('/api/bar')).status).toBe(401);
    const ended = (async (): Promise<boolean> => {
      for (;;) if ((await reader?.read())?.done) return true;
    })();
    const late = new Promise<boolean>((resolve) => setTimeout(() => resolve(false), AT_ONCE_MS));
    expect(await Promise.race([ended, late])).toBe(true);
    // News that come in after it harm nobody.
    await keep(ines, uuidv4(), { name: 'Moss', role: 'trainee' });
    expect((await ines.get('/api/bar')).status).toBe(200);
  });

  it('holds so many streams at most: the oldest gives way', async () => {
    const tablet = await new TestClient(test).signIn('Noor');
    const open = async () =>
      (await fetch(`${test.base}/api/live`, { headers: { cookie: tablet.cookie } })).body!.getReader();
    const oldest = await open();
    for (let i = 0; i < 12; i += 1) await open();
    const ended = (async (): Promise<boolean> => {
      for (;;) if ((await oldest.read()).done) return true;
    })();
    const late = new Promise<boolean>((resolve) => setTimeout(() => resolve(false), AT_ONCE_MS));
    expect(await Promise.race([ended, late])).toBe(true);
  });

  it('is listed with the others of its person, and they can be ended', async () => {
    const here = await new TestClient(test).signIn('Tobin');
    const there = await new TestClient(test).signIn('Tobin');
    const { body } = await here.get<{ sessions: { here: boolean }[] }>('/api/session/own');
    expect(body.sessions.filter((one) => one.here)).toHaveLength(1);
    expect(body.sessions.length).toBeGreaterThan(1);
    await here.send('DELETE', '/api/session/others');
    expect((await there.get('/api/bar')).status).toBe(401);
    expect((await here.get<{ sessions: object[] }>('/api/session/own')).body.sessions).toHaveLength(1);
  });
});

describe('a PIN that many would choose', () => {
  it.each(['1234', '9876', '1357', '0000', '1212', '123123', '1221', '1122', '778899', '1984', '3112', '2512', '2580'])(
    '%s is refused',
    (pin) => expect(isCommonPin(pin)).toBe(true),
  );
  it.each(['4951', '8315', '60724', '918273', '40917265'])('%s is taken', (pin) =>
    expect(isCommonPin(pin)).toBe(false),
  );

  it('is one in ten of four digits', () => {
    const common = Array.from({ length: 10_000 }, (_, i) => String(i).padStart(4, '0')).filter(isCommonPin);
    expect(common.length).toBeGreaterThan(900);
    expect(common.length).toBeLessThan(1_400);
  });
});

describe('what happened at the doors and to the house', () => {
  const changes = async () => (await ines.get<Changes>('/api/journal/changes')).body.changes;

  it('is noted with who and from where: sign-ins, wrong PINs, being made to wait, codes, and no guess beyond that', async () => {
    const { id, client } = await newcomer('Odile', 'barista');
    await client.send('DELETE', '/api/session');
    const guesser = new TestClient(test);
    for (let guess = 0; guess < 9; guess += 1) await guesser.signInWith(id, '0070');
    const about = (await changes()).filter(({ aboutId }) => aboutId === id);
    const count = (what: string) => about.filter((change) => change.what === what).length;
    expect([count('codeHanded'), count('firstPin'), count('signedOut')]).toEqual([1, 1, 1]);
    expect(count('wrongPin')).toBe(4);
    expect(count('lockedOut')).toBe(1);
    expect(about.find(({ what }) => what === 'codeHanded')).toMatchObject({ by: 'Ines', about: 'Odile' });
    expect(about.find(({ what }) => what === 'wrongPin')).toMatchObject({ by: null });
    expect(about.find(({ what }) => what === 'signedOut')?.address).toMatch(/127\.0\.0\.1/);
  });

  it('tells a change of role, of a sheet and of the policies, with its version; and is for the head and the office', async () => {
    const { id, client } = await newcomer('Perle', 'trainee');
    const person = await named('Perle');
    await keep(ines, id, { ...person.sheet, role: 'barista' }, person.revision);
    const told = (await changes()).find(({ aboutId, version }) => aboutId === id && version === 2);
    expect(told).toMatchObject({ what: 'person', by: 'Ines', about: 'Perle, barista', retired: false });
    expect((await client.get<Changes>('/api/journal/changes')).status).toBe(403);
    const page = (await ines.get<Changes>(`/api/journal/changes?before=${told!.at}`)).body;
    expect(page.changes.every(({ at }) => at < told!.at)).toBe(true);
  });
});

describe('what somebody is signed off for', () => {
  it('is a head’s word: the office and others leave it as it is', async () => {
    const { id } = await newcomer('Tansy', 'barista');
    const office = (await newcomer('Rue', 'office')).client;
    const person = await named('Tansy');
    const signOffs = [{ skill: 'dial' as const, on: '2031-05-01', until: null, by: ines.personId }];
    const refused = await keep(office, id, { ...person.sheet, signOffs }, person.revision);
    expect([refused.status, refused.problem.code]).toEqual([403, 'needsRole']);
    expect((await keep(ines, id, { ...person.sheet, signOffs }, person.revision)).status).toBe(200);
    const renamed = await keep(office, id, { ...person.sheet, name: 'Tansy B.', signOffs }, person.revision + 1);
    expect(renamed.status).toBe(200);
    const backwards = [{ skill: 'dial' as const, on: '2031-05-02', until: '2031-05-01', by: null }];
    expect((await keep(ines, id, { ...person.sheet, signOffs: backwards }, person.revision + 2)).status).toBe(422);
  });

  it('counts only where the house keeps such sign-offs, never for a head, and lapses', () => {
    const person = (id: string, role: Role, until: string | null | undefined) => ({
      id,
      role,
      signOffs: until === undefined ? [] : [{ skill: 'dial' as const, on: '2031-01-01', until }],
    });
    const nobody = [person('head', 'head', undefined), person('one', 'barista', undefined)];
    expect(mayAlone(nobody, 'one', 'dial', '2031-05-04')).toBe(true);
    const kept = [...nobody, person('good', 'barista', null), person('lapsed', 'barista', '2031-05-03')];
    const may = (id: string, skill: 'dial' | 'milk' = 'dial') => mayAlone(kept, id, skill, '2031-05-04');
    expect(['head', 'one', 'good', 'lapsed'].map((id) => may(id))).toEqual([true, false, true, false]);
    expect(may('good', 'milk')).toBe(false);
    // A grinder that nobody is signed off for asks for nothing; once somebody is, it asks whoever is not.
    expect(mayAlone(kept, 'one', 'grinder:brew', '2031-05-04')).toBe(true);
    const shown = { ...person('shown', 'barista', null), signOffs: [{ skill: 'grinder:brew' as const, until: null }] };
    const asked = skillsAtBench('brew', 'fern');
    expect(lacking([...kept, shown], 'good', asked, '2031-05-04')).toEqual(['grinder:brew']);
    expect(lacking([...kept, shown], 'shown', asked, '2031-05-04')).toEqual(['dial']);
    expect(lacking([...kept, shown], 'head', asked, '2031-05-04')).toEqual([]);
  });
});
