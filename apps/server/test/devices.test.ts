import type { JournalEntry, JournalPage, RecordedEntry } from '@tempera/contract/journal';
import type { Devices, Session, Welcome } from '@tempera/contract/team';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { factOf, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
/** The head, at the tablet that gets enrolled. */
let ines: TestClient;
let pins: Record<string, string>;
beforeAll(async () => {
  test = await startTestServer({ behindTls: true });
  ines = await new TestClient(test).signIn('Ines');
  pins = (await ines.get<Welcome>('/api/welcome')).body.demo!.pins;
});
afterAll(() => test.close());

/** Guesses from outside, and from how many addresses; 10,000 with TEMPERA_GUESSES=10000. */
const guesses = Number(process.env.TEMPERA_GUESSES ?? 300);
const ADDRESSES = 50;

const PASSWORD = 'a fern behind warm glass';
const devices = async () => (await ines.get<Devices>('/api/team/devices')).body.devices;
const signIn = (client: TestClient, personId: string, pin = pins[personId]) =>
  client.send<Session>('POST', '/api/session', { personId, pin });

describe('a house that has enrolled no tablet', () => {
  it('lets names be read and PINs be typed anywhere, as it always did', async () => {
    const { body } = await new TestClient(test).get<Welcome>('/api/welcome');
    expect(body.sites[0]).toMatchObject({ enrolled: true });
    expect(body.sites[0]!.people.length).toBeGreaterThan(2);
    expect(await devices()).toEqual([]);
  });
});

describe('a house with a tablet of its own', () => {
  const another = new Map<string, TestClient>();

  it('shows names and takes PINs at that tablet only', async () => {
    const password = await ines.send('PUT', '/api/session/password', { pin: pins[ines.personId], password: PASSWORD });
    expect(password.status).toBe(204);
    expect((await ines.send('POST', '/api/team/devices', { name: 'Bar left' })).status).toBe(204);
    expect(await devices()).toMatchObject([{ name: 'Bar left', by: 'Ines', here: true, waits: false }]);
    expect((await ines.get<Welcome>('/api/welcome')).body.sites[0]!.people.length).toBeGreaterThan(2);

    const stranger = new TestClient(test);
    expect((await stranger.get<Welcome>('/api/welcome')).body.sites[0]).toMatchObject({ enrolled: false, people: [] });
    const refused = await signIn(stranger, ines.personId);
    expect([refused.status, refused.problem.code]).toEqual([403, 'deviceUnknown']);
  });

  it('enrols another by a code that works once', async () => {
    const { body, status } = await ines.send<{ code: string }>('POST', '/api/team/devices/code', { name: 'Phone' });
    expect(status).toBe(201);
    const phone = new TestClient(test);
    expect((await phone.send('POST', '/api/device', { code: '00000000' })).problem.code).toBe('wrongCode');
    expect((await phone.send('POST', '/api/device', { code: body.code })).status).toBe(204);
    expect((await new TestClient(test).send('POST', '/api/device', { code: body.code })).problem.code).toBe(
      'wrongCode',
    );
    expect((await signIn(phone, ines.personId)).status).toBe(201);
    another.set('phone', phone);
  });

  it('lets a head in from elsewhere by name and password, and nobody else', async () => {
    await test.server.db.query('UPDATE person SET failed_attempts = 0, wait_until = NULL');
    const away = (name: string, password: string) =>
      new TestClient(test).send<Session>('POST', '/api/session/away', { name, password });
    expect((await away('ines', PASSWORD)).body.person).toMatchObject({ name: 'Ines' });
    for (const [name, password] of [
      ['Ines', 'another password'],
      ['Tobin', PASSWORD],
      ['Nobody', PASSWORD],
    ] as const) {
      const answer = await away(name, password);
      expect([answer.status, answer.problem.code]).toEqual([401, 'wrongPassword']);
    }
    const short = await ines.send('PUT', '/api/session/password', { pin: pins[ines.personId], password: 'short' });
    expect(short.status).toBe(422);
  });

  it('stays open for everybody at its tablet, however many guess elsewhere', async () => {
    const stranger = new TestClient(test);
    for (let guess = 0; guess < guesses; guess += 1) {
      const typed = String(guess).padStart(4, '0');
      const from = { 'x-forwarded-for': `10.0.0.${guess % ADDRESSES}` };
      const pin = await stranger.send('POST', '/api/session', { personId: ines.personId, pin: typed }, from);
      expect([403, 429]).toContain(pin.status);
      if (guess % 20 === 0) {
        const password = `${PASSWORD}${typed}`;
        const away = await stranger.send('POST', '/api/session/away', { name: 'Ines', password }, from);
        expect([401, 429]).toContain(away.status);
      }
    }
    const tablet = new TestClient(test);
    tablet.cookie = ines.cookie;
    expect((await signIn(tablet, ines.personId)).status).toBe(201);
    ines.cookie = tablet.cookie;
  }, 600_000);

  it('makes wrong PINs at one tablet wait there, and nowhere else', async () => {
    const phone = another.get('phone')!;
    const code = async (client: TestClient, pin: string) => (await signIn(client, ines.personId, pin)).problem.code;
    for (let guess = 0; guess < 4; guess += 1) expect(await code(phone, '9090')).toBe('wrongPin');
    expect(await code(phone, '9090')).toBe('pinWait');
    expect(await code(phone, pins[ines.personId]!)).toBe('pinWait');
    expect((await signIn(ines, ines.personId)).status).toBe(201);
  });

  it('hears a bridge that was enrolled as a tablet is, and tells every open page what it reads', async () => {
    const { body } = await ines.send<{ code: string }>('POST', '/api/team/devices/code', { name: 'Bridge' });
    const bridge = new TestClient(test);
    // As many as fit into no single notice of the database.
    const readings = Array.from({ length: 200 }, (_, i) => ({ device: 'counter scale', value: i, unit: 'g' }));
    expect((await bridge.send('POST', '/api/readings', { readings })).problem.code).toBe('deviceUnknown');
    expect((await bridge.send('POST', '/api/device', { code: body.code })).status).toBe(204);
    const page = await fetch(`${test.base}/api/live`, { headers: { cookie: ines.cookie } });
    const stream = page.body!.getReader();
    expect((await bridge.send('POST', '/api/readings', { readings })).status).toBe(204);
    let text = '';
    const heard = (): number[] =>
      text
        .split('\n\n')
        .filter((event) => event.includes('event: readings'))
        .flatMap((event) => (JSON.parse(event.split('data: ')[1]!) as { readings: { value: number }[] }).readings)
        .map(({ value }) => value);
    const decoder = new TextDecoder();
    while (!text.includes('"value":199') || !text.endsWith('\n\n'))
      text += decoder.decode((await stream.read()).value, { stream: true });
    expect(heard()).toEqual(readings.map(({ value }) => value));
    await stream.cancel();
    const far = await bridge.send('POST', '/api/readings', { readings: [{ ...readings[0]!, unit: 'stone' }] });
    expect(far.status).toBe(422);
    const own = (await devices()).find(({ name }) => name === 'Bridge')!;
    expect((await ines.send('DELETE', `/api/team/devices/${own.id}`)).status).toBe(204);
    expect((await bridge.send('POST', '/api/readings', { readings })).problem.code).toBe('deviceUnknown');
  });

  it('takes from its tablets what is told by name, as unconfirmed until its author’s PIN, and from nobody else', async () => {
    const phone = another.get('phone')!;
    const { sites } = (await phone.get<Welcome>('/api/welcome')).body;
    const noor = sites[0]!.people.find(({ name }) => name === 'Noor')!;
    const bar = await ines.bar();
    const purge = { ...factOf(bar, sites[0]!.id, 'purge', { purgeG: 12 }), personId: noor.id, skewMs: null };
    const tell = (client: TestClient, fact: object) => client.send<RecordedEntry>('POST', '/api/facts/by-name', fact);
    const inJournal = async () => {
      const { body } = await ines.get<JournalPage>('/api/journal?kind=purge');
      return { found: body.facts.filter(({ id }) => id === purge.id).length, unconfirmed: body.unconfirmed ?? [] };
    };
    const unconfirmedFrom = async () => (await ines.get<JournalEntry>(`/api/facts/${purge.id}`)).body.unconfirmedFrom;

    expect((await tell(new TestClient(test), purge)).problem.code).toBe('deviceUnknown');
    expect((await tell(phone, { ...purge, siteId: uuidv7() })).problem.code).toBe('wrongSite');
    expect((await tell(phone, { ...purge, personId: uuidv7() })).problem.code).toBe('retiredPerson');
    // A signature, and what takes another's work back, wait for the PIN; nothing of it is kept.
    const step = (body: object) => ({ ...purge, id: uuidv7(), kind: 'step', grinderId: null, groupId: null, body });
    for (const waits of [
      step({ step: 'signedOff', notRight: [] }),
      { ...purge, id: uuidv7(), kind: 'correction', body: { factId: bar.facts[0]!.id, withdrawn: true, shot: null } },
    ]) {
      expect((await tell(phone, waits)).problem.code).toBe('waitsForPin');
      expect(await test.server.db.query('SELECT id FROM fact WHERE id = $1', [waits.id])).toEqual([]);
    }

    // Told twice, since the answer to the first was lost.
    expect((await tell(phone, purge)).status).toBe(201);
    expect((await tell(phone, purge)).status).toBe(200);
    expect((await tell(phone, { ...purge, body: { purgeG: 13 } })).problem.code).toBe('idTaken');
    expect(await inJournal()).toEqual({ found: 1, unconfirmed: [purge.id] });
    expect(await unconfirmedFrom()).toBe('Phone');

    // Somebody else's session confirms nothing of hers; her own does.
    expect((await ines.send('POST', '/api/facts', purge)).problem.code).toBe('notYours');
    expect((await inJournal()).unconfirmed).toEqual([purge.id]);
    expect((await signIn(phone, noor.id)).status).toBe(201);
    expect((await phone.send('POST', '/api/facts', purge)).status).toBe(200);
    expect(await inJournal()).toEqual({ found: 1, unconfirmed: [] });
    expect(await unconfirmedFrom()).toBeUndefined();
  });

  it('strikes a lost one off: its sessions end, and it is a stranger again', async () => {
    const phone = another.get('phone')!;
    await test.server.db.query('DELETE FROM pin_try');
    expect((await signIn(phone, ines.personId)).status).toBe(201);
    const lost = (await devices()).find(({ name }) => name === 'Phone')!;
    expect((await ines.send('DELETE', `/api/team/devices/${lost.id}`)).status).toBe(204);
    expect((await phone.get('/api/bar')).status).toBe(401);
    expect((await phone.get<Welcome>('/api/welcome')).body.sites[0]).toMatchObject({ enrolled: false, people: [] });
    expect((await devices()).map(({ name }) => name)).toEqual(['Bar left']);
    const barista = new TestClient(test);
    barista.cookie = ines.cookie;
    await barista.signIn('Tobin');
    expect((await barista.send('DELETE', `/api/team/devices/${lost.id}`)).status).toBe(403);
    expect((await barista.get('/api/team/devices')).status).toBe(403);
  });
});
