import type { Bar } from '@tempera/contract/bar';
import type { Bench } from '@tempera/contract/calibration';
import type { JournalPage, NewStep, RecordedStep } from '@tempera/contract/journal';
import type { StepBody } from '@tempera/core/facts';
import { v4 as uuidv4, v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
let noor: TestClient;
let bar: Bar;
let siteId: string;
let inesId: string;

beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
  noor = await new TestClient(test).signIn('Noor');
  bar = await ines.bar();
  siteId = bar.facts[0]!.siteId;
  inesId = (await ines.get<{ person: { id: string } }>('/api/session')).body.person.id;
});
afterAll(() => test.close());

const step = (body: StepBody): Omit<NewStep, 'personId' | 'skewMs'> => ({
  id: uuidv7(),
  siteId,
  kind: 'step',
  at: new Date().toISOString(),
  grinderId: null,
  groupId: null,
  body,
});
const post = (by: TestClient, body: StepBody) => by.send<RecordedStep>('POST', '/api/facts', step(body));
const grinderId = (): string => bar.grinders[0]!.id;
const groupId = (): string => bar.machines[0]!.groups[0]!.id;

describe('the steps of an opening', () => {
  it('are kept, reach the bar, and stand in the journal of their station', async () => {
    const made = await post(noor, { step: 'hopper', grinderId: grinderId() });
    expect(made.status).toBe(201);
    expect((await ines.bar()).steps.map(({ id }) => id)).toContain(made.body.id);
    const { body } = await ines.get<JournalPage>(`/api/journal?grinderId=${grinderId()}&kind=step&limit=1`);
    expect(body.facts.map(({ id }) => id)).toEqual([made.body.id]);
    const others = await ines.get<JournalPage>(`/api/journal?groupId=${groupId()}&kind=step`);
    expect(others.body.facts.map(({ id }) => id)).not.toContain(made.body.id);
  });

  it('do not stand among the facts of a bench', async () => {
    const { body } = await ines.get<Bench>(`/api/benches/${grinderId()}`);
    expect(body.facts.some(({ kind }) => (kind as string) === 'step')).toBe(false);
  });

  it.each<[string, () => StepBody, string]>([
    ['a grinder of nowhere', () => ({ step: 'hopper', grinderId: uuidv4() }), 'unknownStation'],
    ['a group of nowhere', () => ({ step: 'mended', groupId: uuidv4(), what: 'screen' }), 'unknownStation'],
    ['a claim at no station', () => ({ step: 'begun', job: 'rinse', stationId: uuidv4() }), 'unknownStation'],
    [
      'a taster whom nobody knows',
      () => ({
        step: 'tasted',
        grinderId: grinderId(),
        tasterId: uuidv4(),
        sourBitter: 5,
        weakStrong: 5,
        body: 5,
        sweetness: 5,
        notes: [],
        tdsPct: null,
      }),
      'unknownPart',
    ],
    [
      'a trial of a coffee of nowhere',
      () => ({
        ...{ step: 'trialBegan', trialId: uuidv7(), coffeeId: uuidv4(), axes: ['ratio'], purgeG: 0, blind: true },
        start: { ratio: 2, timeS: 27, doseG: 18, tempC: 93 },
      }),
      'unknownPart',
    ],
    [
      'a crew of strangers',
      () => ({
        step: 'planned',
        opensAt: new Date().toISOString(),
        from: new Date().toISOString(),
        people: [{ personId: uuidv4(), from: new Date().toISOString() }],
        detergent: false,
      }),
      'unknownPart',
    ],
    ['leaving out without a reason', () => ({ step: 'skipped', job: 'milk', stationId: null, why: ' ' }), 'invalid'],
    [
      'a taste beyond the scale',
      () => ({
        step: 'milk',
        purged: true,
        steamBar: 9,
        thermometer: { in: 'ice', showedC: 0 },
        stopC: 55,
      }),
      'invalid',
    ],
  ])('are refused for %s', async (_, body, code) => {
    const answer = await post(ines, body());
    expect(answer.status).toBe(422);
    expect(answer.problem.code).toBe(code);
    expect(answer.problem.detail).toMatch(/\.$/);
  });

  it('are signed off by a head barista only', async () => {
    const refused = await post(noor, { step: 'signedOff', notRight: [] });
    expect([refused.status, refused.problem.code]).toEqual([403, 'headSigns']);
    expect((await post(ines, { step: 'signedOff', notRight: ['Milk station left out'] })).status).toBe(201);
  });
});

describe('a run in hand', () => {
  const planned = (from: string) => ({
    step: 'planned' as const,
    opensAt: new Date(Date.now() + 3_600_000).toISOString(),
    from,
    people: [{ personId: inesId, from }],
    detergent: false,
  });

  it('of one station is signed for by whoever went over it', async () => {
    const from = new Date().toISOString();
    const station: StepBody = { ...planned(from), run: 'station', grinderIds: [grinderId()] };
    const begun = await post(ines, station);
    expect(begun.status).toBe(201);
    expect((await post(noor, { step: 'signedOff', notRight: [] })).status).toBe(201);
    const back: StepBody = { step: 'takenBack', machineId: null, readings: [], takesBack: begun.body.id };
    expect((await post(ines, back)).status).toBe(201);
  });

  it('is begun anew, and taken back, by a head barista only; anyone may change what it is planned for', async () => {
    const from = new Date().toISOString();
    expect((await post(ines, planned(from))).status).toBe(201);
    expect((await post(noor, planned(from))).status).toBe(201);
    const anew = await post(noor, planned(new Date(Date.now() + 1_000).toISOString()));
    expect([anew.status, anew.problem.code]).toEqual([403, 'headBegins']);
    const { steps } = await ines.bar();
    const plan = steps.findLast(({ body }) => body.step === 'planned')!;
    const back: StepBody = { step: 'takenBack', machineId: null, readings: [], takesBack: plan.id };
    const refused = await post(noor, back);
    expect([refused.status, refused.problem.code]).toEqual([403, 'headBegins']);
    expect((await post(ines, back)).status).toBe(201);
  });
});

describe('the traces of shots', () => {
  it('are kept packed, come back as they were, and a repeat is known as one', async () => {
    const massG = [0, 0, null, 0.1, 0.4, 12.3, 36.2];
    const shot = factOf(bar, siteId, 'shot', { ...shotBody(bar), trace: { hz: 10, massG }, partial: true });
    expect((await ines.send('POST', '/api/facts', shot)).status).toBe(201);
    expect((await ines.send('POST', '/api/facts', shot)).status).toBe(200);
    const [row] = await test.server.db.query<{ packed: string }[]>(
      `SELECT body->'trace'->>'packed' AS packed FROM fact WHERE id = $1`,
      [shot.id],
    );
    expect(row!.packed).toMatch(/^[\w.-]+$/);
    const bench = await ines.get<Bench>(`/api/benches/${shot.grinderId}`);
    const kept = bench.body.facts.find(({ id }) => id === shot.id)!;
    expect(kept.body).toMatchObject({ trace: { hz: 10, massG }, partial: true });
  });
});
