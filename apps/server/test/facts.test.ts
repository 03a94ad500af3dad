import type { Bar } from '@tempera/contract/bar';
import type { Bench } from '@tempera/contract/calibration';
import type { JournalEntry, JournalPage, NewEntry, NewFact, RecordedFact } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keeper } from '../src/journal/keep.ts';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
let bar: Bar;
let siteId: string;

beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
  bar = await ines.bar();
  siteId = (await ines.get<Session>('/api/session')).body.site.id;
});
afterAll(() => test.close());

const post = (fact: unknown) => ines.send<RecordedFact>('POST', '/api/facts', fact);
const countFacts = async (): Promise<number> =>
  Number((await test.server.db.query<{ count: string }[]>('SELECT count(*) FROM fact'))[0]?.count);

describe('writing facts', () => {
  it('keeps a fact with who and when it arrived', async () => {
    const fact = factOf(bar, siteId, 'shot', shotBody(bar));
    const { status, body } = await post(fact);
    expect(status).toBe(201);
    expect(body).toMatchObject({ ...fact, personId: expect.any(String), seq: expect.any(Number) });
    const bench = await ines.get<Bench>(`/api/benches/${fact.grinderId}`);
    expect(bench.body.facts.map(({ id }) => id)).toContain(fact.id);
  });

  it('hands out the bag in the hopper, however many locks ago it went in', async () => {
    // The decaf's hopper takes a bag every third day, and its grinder is locked every morning.
    const decaf = bar.grinders.find(({ name }) => name === 'Decaf')!.id;
    const at = new Date(Date.now() - 3_600_000).toISOString();
    const bag = factOf(bar, siteId, 'newBag', { roastedOn: '2031-05-01' }, { grinderId: decaf, at });
    expect((await post(bag)).status).toBe(201);
    const lock = { chance: 0.9, nextCheckMin: 30, doseTimeS: null, setting: 18, shotIds: [bag.id] };
    const expected = { timeS: 27, lowS: 25, highS: 29 };
    const { recipeVersionId } = shotBody(bar);
    for (let i = 0; i < 4; i += 1) {
      await post(factOf(bar, siteId, 'lock', { ...lock, expected, recipeVersionId }, { grinderId: decaf }));
    }
    const bench = await ines.get<Bench>(`/api/benches/${decaf}`);
    expect(bench.body.facts.filter(({ kind }) => kind === 'newBag').map(({ id }) => id)).toEqual([bag.id]);
    expect((await ines.bar()).facts.map(({ id }) => id)).toContain(bag.id);
    const noDate = await post(factOf(bar, siteId, 'newBag', { roastedOn: 'last Tuesday' }));
    expect(noDate.status).toBe(422);
    expect(noDate.problem.fields?.[0]?.message).toContain('no date');
  });

  it('keeps what comes at one time as if each came alone: the refused refused, the repeated once, the rest in their order', async () => {
    const shot = (change: object = {}) => factOf(bar, siteId, 'shot', { ...shotBody(bar), ...change });
    const twice = shot();
    const told = [
      ...Array.from({ length: 12 }, () => shot()),
      twice,
      shot({ setting: 4_000 }),
      { ...shot(), grinderId: shot().id },
      twice,
      shot({ recipeVersionId: siteId }),
      ...Array.from({ length: 12 }, () => shot()),
    ];
    const before = await countFacts();
    const answers = await Promise.all(told.map(post));
    const refused = answers.filter(({ status }) => status === 422).map(({ problem }) => problem.code);
    expect(refused).toEqual(['invalid', 'unknownStation', 'unknownRecipe']);
    const kept = answers.filter(({ status }) => status === 201 || status === 200);
    expect(kept).toHaveLength(told.length - refused.length);
    expect(kept.filter(({ status }) => status === 200).map(({ body }) => body.id)).toEqual([twice.id]);
    expect(await countFacts()).toBe(before + 25);
    for (const { body } of kept)
      expect((await ines.get<JournalEntry>(`/api/facts/${body.id}`)).body.fact).toEqual(body);
  });

  it('lets one that the database will not have take none of the others with it', async () => {
    const personId = ines.personId;
    const shot = (by: string): NewEntry => ({ ...factOf(bar, siteId, 'shot', shotBody(bar)), personId: by, skewMs: 0 });
    const keeps = keeper(test.server.db);
    const told = [shot(personId), shot(personId), shot(siteId), shot(personId)];
    const outcomes = await Promise.allSettled(told.map((fact) => keeps({ fact, approvedBy: null })));
    expect(outcomes.map(({ status }) => status)).toEqual(['fulfilled', 'fulfilled', 'rejected', 'fulfilled']);
    for (const i of [0, 1, 3]) expect((await ines.get(`/api/facts/${told[i]?.id}`)).status).toBe(200);
  });

  it('answers a repeat as already done, and keeps it once', async () => {
    const fact = factOf(bar, siteId, 'purge', { purgeG: 12 });
    const first = await post(fact);
    const before = await countFacts();
    const again = await post(fact);
    expect([first.status, again.status]).toEqual([201, 200]);
    expect(again.body).toEqual(first.body);
    expect(await countFacts()).toBe(before);
  });

  it('keeps it once when ten devices send it at the same moment', async () => {
    const fact = factOf(bar, siteId, 'purge', { purgeG: 7 });
    const before = await countFacts();
    const statuses = (await Promise.all(Array.from({ length: 10 }, () => post(fact)))).map(({ status }) => status);
    expect(statuses.filter((status) => status === 201)).toHaveLength(1);
    expect(statuses.filter((status) => status === 200)).toHaveLength(9);
    expect(await countFacts()).toBe(before + 1);
  });

  it('refuses the same id with other content', async () => {
    const fact = factOf(bar, siteId, 'purge', { purgeG: 12 });
    await post(fact);
    const other = await post({ ...fact, body: { purgeG: 13 } });
    expect(other.status).toBe(409);
    expect(other.problem.code).toBe('idTaken');
  });

  it('takes a correction only of a fact that is here', async () => {
    const shot = factOf(bar, siteId, 'shot', shotBody(bar));
    const correction = factOf(bar, siteId, 'correction', {
      factId: shot.id,
      withdrawn: false,
      shot: { flaw: 'channel' },
    });
    expect((await post(correction)).problem.code).toBe('unknownFact');
    await post(shot);
    expect((await post(correction)).status).toBe(201);
    const ofCorrection = factOf(bar, siteId, 'correction', { factId: correction.id, withdrawn: true, shot: null });
    expect((await post(ofCorrection)).problem.code).toBe('unknownFact');
  });
});

describe('refused input', () => {
  const good = (): NewFact => factOf(bar, siteId, 'shot', shotBody(bar));
  const cases: [string, () => unknown, number, string][] = [
    ['an unknown field', () => ({ ...good(), extra: 1 }), 422, 'invalid'],
    ['a wrong type', () => ({ ...good(), body: { ...shotBody(bar), doseG: '18' } }), 422, 'invalid'],
    ['a number beyond its limits', () => ({ ...good(), body: shotBody(bar, { doseG: 31 }) }), 422, 'invalid'],
    ['a first drop after the end', () => ({ ...good(), body: shotBody(bar, { firstDropS: 28 }) }), 422, 'invalid'],
    ['a bad id', () => ({ ...good(), id: 'nonsense' }), 422, 'invalid'],
    ['a null character', () => ({ ...good(), id: '\u0000' }), 422, 'invalid'],
    ['a list for an object', () => [], 422, 'invalid'],
    ['no JSON at all', () => '{"id":', 400, 'notJson'],
    ['a huge body', () => ({ ...good(), extra: 'x'.repeat(300_000) }), 413, 'tooLarge'],
    ['another café', () => ({ ...good(), siteId: good().id }), 403, 'wrongSite'],
    ['an unknown grinder', () => ({ ...good(), grinderId: good().id }), 422, 'unknownStation'],
    ['an unknown group', () => ({ ...good(), groupId: good().id }), 422, 'unknownStation'],
    [
      'an unknown recipe',
      () => ({ ...good(), body: shotBody(bar, { recipeVersionId: good().id }) }),
      422,
      'unknownRecipe',
    ],
    ['no instant at all', () => ({ ...good(), at: 'a while ago' }), 422, 'invalid'],
    ['what another one did', () => ({ ...good(), personId: good().id }), 403, 'notYours'],
    [
      'a trace without end',
      () => ({ ...good(), body: shotBody(bar, { trace: { hz: 10, massG: Array.from({ length: 2001 }, () => 1) } }) }),
      422,
      'invalid',
    ],
  ];
  it.each(cases)('%s is a problem with a sentence, and nothing is written', async (_what, fact, status, code) => {
    const before = await countFacts();
    const answer = await post(fact());
    expect(answer.status).toBe(status);
    expect(answer.headers.get('content-type')).toContain('application/problem+json');
    expect(answer.problem).toMatchObject({ code, status, title: expect.any(String) });
    expect(answer.problem.detail).toMatch(/\.$/);
    expect(await countFacts()).toBe(before);
  });

  it('names the field and what to do', async () => {
    const answer = await post({ ...good(), body: shotBody(bar, { doseG: 31 }) });
    expect(answer.problem.fields).toEqual([
      { path: 'body.doseG', message: 'A dose lies between 3 and 30 g. Check the number and its unit.' },
    ]);
  });

  it.each([
    '/api/nothing',
    '/api/benches/nonsense',
    '/api/journal?limit=0',
    '/api/journal?kind=gossip',
    '/api/journal?beforeSeq=x',
    '/nothing',
    '/api/%E0%A4%A',
  ])('GET %s is a 4xx problem', async (path) => {
    const { status, problem } = await ines.get(path);
    expect(status).toBeGreaterThanOrEqual(400);
    expect(status).toBeLessThan(500);
    expect(problem.code).toEqual(expect.any(String));
  });
});

describe('facts are append-only', () => {
  it.each(['UPDATE fact SET kind = kind', 'DELETE FROM fact', 'TRUNCATE fact'])(
    'refuses the server itself: %s',
    async (sql) => {
      await expect(test.server.db.query(sql)).rejects.toThrow(/permission denied/);
    },
  );

  it.each([
    'DROP TRIGGER fact_append_only ON fact',
    'ALTER TABLE fact DISABLE TRIGGER ALL',
    'GRANT UPDATE ON fact TO CURRENT_USER',
    'ALTER TABLE fact OWNER TO CURRENT_USER',
    'SET ROLE tempera',
    'SET session_replication_role = replica',
    'CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RETURN NULL; END $$',
    `UPDATE recipe_version SET dose_g = 20`,
    'DELETE FROM sheet_version',
    'DELETE FROM policy_version',
    'DELETE FROM audit',
    'DELETE FROM migration',
  ])('gives the role that the server works under no way round it: %s', async (sql) => {
    // A grant of what one has not is answered with a warning: what counts is that nothing came of it.
    await test.server.db.query(sql).catch((error: unknown) => expect(String(error)).toMatch(/denied|owner|must be/));
    const [may] = await test.server.db.query<{ may: boolean }[]>(
      `SELECT has_table_privilege('fact', 'UPDATE') OR has_table_privilege('audit', 'DELETE')
           OR pg_has_role('tempera', 'MEMBER') OR EXISTS (
                SELECT 1 FROM pg_trigger WHERE tgname = 'fact_append_only' AND tgenabled <> 'O') AS may`,
    );
    expect(may?.may).toBe(false);
    await expect(test.server.db.query('UPDATE fact SET kind = kind')).rejects.toThrow(/permission denied/);
  });

  it.each(['UPDATE fact SET kind = kind', 'DELETE FROM fact', 'TRUNCATE fact'])(
    'refuses even the superuser: %s',
    async (sql) => {
      const admin = new pg.Client({ connectionString: test.adminUrl });
      await admin.connect();
      await expect(admin.query(sql)).rejects.toThrow(/append-only/);
      await admin.end();
    },
  );
});

describe('one entry', () => {
  it('comes with its trace, its recipe’s window and what belongs to it; another café’s, or none, is not found', async () => {
    const { body: page } = await ines.get<JournalPage>('/api/journal?kind=lock&limit=1');
    const lock = page.facts[0]!;
    const { body: locked } = await ines.get<JournalEntry>(`/api/facts/${lock.id}`);
    const { shotIds } = lock.body as { shotIds: string[] };
    expect(locked.related.map(({ id }) => id).toSorted()).toEqual(shotIds.toSorted());
    expect(locked.gate).toMatchObject({ recipe: expect.any(String) as string, yieldG: expect.any(Number) as number });
    const { body: pulled } = await ines.get<JournalEntry>(`/api/facts/${shotIds[0]!}`);
    expect((pulled.fact.body as { trace: { massG: number[] } }).trace.massG.length).toBeGreaterThan(100);
    const { status, problem } = await ines.get(`/api/facts/${crypto.randomUUID()}`);
    expect([status, problem.code]).toEqual([404, 'notFound']);
  });
});

describe('the journal', () => {
  it('pages newest first without gap or repeat', async () => {
    const seen: number[] = [];
    let next: number | null = null;
    do {
      const page: { body: JournalPage } = await ines.get<JournalPage>(
        `/api/journal?limit=20${next === null ? '' : `&beforeSeq=${next}`}`,
      );
      seen.push(...page.body.facts.map(({ seq }) => seq));
      next = page.body.nextBeforeSeq;
    } while (next !== null);
    expect(seen).toEqual([...new Set(seen)].sort((a, b) => b - a));
    expect(seen).toHaveLength(await countFacts());
  });

  it('filters by station, person and kind together', async () => {
    const tobin = await new TestClient(test).signIn('Tobin');
    const move = factOf(bar, siteId, 'collarMove', { from: 30, to: 28, advisedTo: 28 }, { groupId: null });
    const { body } = await tobin.send<RecordedFact>('POST', '/api/facts', move);
    const page = await ines.get<JournalPage>(
      `/api/journal?grinderId=${move.grinderId}&personId=${body.personId}&kind=collarMove&limit=1`,
    );
    expect(page.body.facts.map(({ id }) => id)).toEqual([move.id]);
  });

  it('brings along what its corrections belong to', async () => {
    const shot = factOf(bar, siteId, 'shot', shotBody(bar, { timeS: 21 }));
    await post(shot);
    await post(factOf(bar, siteId, 'correction', { factId: shot.id, withdrawn: true, shot: null }));
    const { body } = await ines.get<JournalPage>('/api/journal?kind=correction&limit=1');
    expect(body.related.map(({ id }) => id)).toContain(shot.id);
  });

  it('gives shots and moves as CSV, corrected and without the withdrawn', async () => {
    const shot = factOf(bar, siteId, 'shot', shotBody(bar, { timeS: 22.2 }));
    const gone = factOf(bar, siteId, 'shot', shotBody(bar));
    await post(shot);
    await post(gone);
    await post(
      factOf(bar, siteId, 'correction', { factId: shot.id, withdrawn: false, shot: { timeS: 23.3, flaw: 'channel' } }),
    );
    await post(factOf(bar, siteId, 'correction', { factId: gone.id, withdrawn: true, shot: null }));
    const { body, headers } = await ines.get<string>('/api/journal/shots.csv');
    expect(headers.get('content-type')).toContain('text/csv');
    const lines = body.trimEnd().split('\r\n');
    expect(lines[0]).toBe(
      'at,person,grinder,group,setting_marks,dose_g,yield_g,time_s,first_drop_s,flaw,measured_by,in_service,' +
        'recipe,recipe_version,aim_dose_g,aim_yield_g,aim_temp_c,aim_time_min_s,aim_time_max_s,changed_for_taste,id',
    );
    expect(lines.find((line) => line.endsWith(shot.id))).toContain(
      'Ines,House,Group 1,30,18,36,23.3,6,channel,hand,0,House double,',
    );
    expect(body).not.toContain(gone.id);
    const moves = (await ines.get<string>('/api/journal/moves.csv')).body;
    expect(moves).toMatch(/Tobin,House,,\d+,\d+,/);
  });

  it('gives every shot once, however many there are and though they came at the same moment', async () => {
    const at = new Date().toISOString();
    const shots = Array.from({ length: 300 }, () => factOf(bar, siteId, 'shot', shotBody(bar), { at }));
    for (const shot of shots) await post(shot);
    const { body } = await ines.get<string>('/api/journal/shots.csv');
    const ids = body.split('\r\n').map((line) => line.split(',').at(-1));
    expect(shots.map(({ id }) => ids.filter((found) => found === id).length)).toEqual(shots.map(() => 1));
  });

  it('gives the aim that a shot was pulled for, and tastings with their scores', async () => {
    const grinderId = bar.grinders.find(({ name }) => name === 'House')!.id;
    const step = (body: object) =>
      post(factOf(bar, siteId, 'step' as never, body as never, { grinderId: null, groupId: null }));
    const sheet = { sourBitter: null, weakStrong: null, body: null, sweetness: 6, notes: ['=cmd'], tdsPct: 9.1 };
    await step({ step: 'tasted', grinderId, tasterId: ines.personId, acidity: 7, bitterness: 2, ...sheet });
    await step({ step: 'tasteSettled', grinderId, change: { lever: 'yield', by: 0.06 } });
    const shot = factOf(bar, siteId, 'shot', shotBody(bar));
    await post(shot);
    const shots = (await ines.get<string>('/api/journal/shots.csv')).body.split('\r\n');
    expect(shots.find((line) => line.endsWith(shot.id))).toMatch(/,18,38\.2,[\d.]*,[\d.]+,[\d.]+,yield \+0\.06,/);
    const { body: tastings } = await ines.get<string>('/api/journal/tastings.csv');
    expect(tastings.split('\r\n')[0]).toContain('acidity,bitterness,sweetness,body,strength,finish');
    expect(tastings).toMatch(/House,Ines,,7,2,6,,,,,0,'=cmd,9\.1,/);
  });
});
