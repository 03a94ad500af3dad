import type { Bar } from '@tempera/contract/bar';
import type { Stock } from '@tempera/contract/coffee';
import type { NewFact, RecordedFact } from '@tempera/contract/journal';
import { policyOf, type Policies } from '@tempera/contract/policy';
import { rights, rolesToUndo, type Act } from '@tempera/contract/rights';
import type { Kept } from '@tempera/contract/sheet';
import { roles, type PersonSheet, type Role, type Session } from '@tempera/contract/team';
import { factKinds, type FactKind, type StepBody } from '@tempera/core/facts';
import { v4 as uuidv4, v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

/** Two people of each role: what is one's own, and what is another's, are two things. */
let test: TestServer;
let bar: Bar;
/** A shot that locks can rest on. */
let noteId = '';
let handedOverId = '';
let shotId = '';
let bagId = '';
const people = {} as Record<Role, [TestClient, TestClient]>;

beforeAll(async () => {
  test = await startTestServer();
  const ines = await new TestClient(test).signIn('Ines');
  bar = await ines.bar();
  bagId = (await ines.get<Stock>('/api/coffee/stock')).body.bags[0]!.id;
  const take = async (role: Role, name: string): Promise<TestClient> => {
    const id = uuidv4();
    await ines.send('PUT', `/api/team/people/${id}`, { basedOn: 0, sheet: { name, role } });
    const { body } = await ines.send<{ code: string }>('POST', `/api/team/people/${id}/code`);
    const client = new TestClient(test);
    await client.send<Session>('POST', '/api/session/first', { personId: id, code: body.code, pin: '4951' });
    client.personId = id;
    return client;
  };
  for (const role of roles) people[role] = [await take(role, `One ${role}`), await take(role, `Other ${role}`)];
  shotId = (await write(people.head[0], 'shot')).fact.id;
  noteId = (await write(people.head[0], 'note')).fact.id;
  handedOverId = (await write(people.head[0], 'handedOver')).fact.id;
});
afterAll(() => test.close());

const house = () => bar.grinders.find(({ name }) => name === 'House')!;
const group = () => bar.machines[0]!.groups[0]!;
const cup = { ratio: 2, timeS: 27, doseG: 18, tempC: 93 };
const unsaid = { sourBitter: null, weakStrong: null };

/** Something proper of every act, said by `by`. */
function bodyOf(act: Act, by: TestClient): { kind: FactKind; body: object } | { kind: 'step'; body: StepBody } {
  const now = new Date().toISOString();
  const grinderId = house().id;
  const groupId = group().id;
  const machineId = bar.machines[0]!.id;
  const machine = { machineId, readings: [], takesBack: null };
  const step = (body: StepBody) => ({ kind: 'step' as const, body });
  const fact = (kind: FactKind, body: object) => ({ kind, body });
  const of: Record<Act, ReturnType<typeof step> | ReturnType<typeof fact>> = {
    shot: fact('shot', shotBody(bar)),
    dose: fact('dose', { setting: 30, doseG: 18, grindTimeS: 6, measuredBy: 'scale' }),
    collarMove: fact('collarMove', { from: 30, to: 29, advisedTo: 29 }),
    purge: fact('purge', { purgeG: 18 }),
    seen: fact('seen', { sign: 'clumping', setting: 30 }),
    newBag: fact('newBag', { roastedOn: null }),
    lock: fact('lock', lockBody(shotId)),
    switchedOn: step({ step: 'switchedOn', ...machine }),
    hot: step({ step: 'hot', ...machine }),
    begun: step({ step: 'begun', job: 'rinse', stationId: groupId }),
    skipped: step({ step: 'skipped', job: 'milk', stationId: null, why: 'No milk today' }),
    water: step({ step: 'water', machineId, waterRuns: true, filterInDate: true }),
    scale: step({ step: 'scale', knownG: 100, shownG: 100 }),
    hopper: step({ step: 'hopper', grinderId }),
    rinsed: step({ step: 'rinsed', groupId, rinseS: 5, screenCleaned: false, detergent: false }),
    firstDose: step({ step: 'firstDose', grinderId }),
    doseTime: step({
      step: 'doseTime',
      grinderId,
      way: 'timed',
      discardedG: 0,
      grindTimeS: 6,
      dosesG: [18],
      holds: true,
    }),
    groupChecked: step({
      ...{ step: 'groupChecked', groupId, offS: 0, sdS: 1, finding: 'none', foundId: null, chance: 0.9 },
    }),
    mended: step({ step: 'mended', groupId, what: 'screen' }),
    button: step({ step: 'button', groupId, button: 'double', count: 100, yieldsG: [36], nextCount: 101 }),
    tasted: step({
      ...{ step: 'tasted', grinderId, tasterId: by.personId, sourBitter: 5, weakStrong: null },
      ...{ body: null, sweetness: null, notes: [], tdsPct: null },
    }),
    tasteSettled: step({ step: 'tasteSettled', grinderId, change: null }),
    aimKept: step({
      ...{ step: 'aimKept', grinderId, changes: [{ lever: 'yield', by: 0.06 }] },
      ...{ holdsUntil: new Date(Date.now() + 86_400_000).toISOString(), days: 2 },
    }),
    trialBegan: step({
      ...{ step: 'trialBegan', trialId: uuidv7(), coffeeId: house().coffeeId, start: cup },
      ...{ axes: ['ratio'], purgeG: 0, blind: true },
    }),
    trialTasted: step({
      ...{ step: 'trialTasted', trialId: uuidv7(), tasterId: by.personId, left: cup, right: cup },
      ...{ better: 'same', leftWord: unsaid, rightWord: unsaid },
    }),
    air: step({ step: 'air', tempC: 21.5, humidityPct: 60, measuredBy: 'hand' }),
    happened: step({ step: 'happened', what: 'doors', grinderId: null }),
    doseSet: step({ step: 'doseSet', grinderId, doseG: 18, grindTimeS: 6.2 }),
    note: step({ step: 'note', text: 'The collar sticks', grinderId, coffeeId: null }),
    noteDone: step({ step: 'noteDone', noteId }),
    handedOver: step({ step: 'handedOver', says: [] }),
    takenOver: step({ step: 'takenOver', handedOverId }),
    putOff: step({ step: 'putOff', grinderId, minutes: 15 }),
    milk: step({ step: 'milk', purged: true, steamBar: null, thermometer: null, stopC: null }),
    hopperEmptied: step({ step: 'hopperEmptied', grinderId, tubG: 640 }),
    chuteBrushed: step({ step: 'chuteBrushed', grinderId }),
    backFlushed: step({
      ...{ step: 'backFlushed', groupId: bar.machines[0]!.groups[0]!.id, detergent: true, rinsedClear: true },
      ...{ screenDown: false, gasketGood: null },
    }),
    soaked: step({ step: 'soaked' }),
    wandCleaned: step({ step: 'wandCleaned', machineId }),
    traysCleaned: step({ step: 'traysCleaned', machineId }),
    switchedOff: step({ step: 'switchedOff', machineId, to: 'off' }),
    upkept: step({ step: 'upkept', what: 'filter', stationId: machineId, by: '' }),
    upkeepSeen: step({ step: 'upkeepSeen', left: [] }),
    tomorrow: step({ step: 'tomorrow', opensAt: now, opensById: by.personId, bags: [], thawed: [] }),
    thawed: step({ step: 'thawed', bagId }),
    planned: step({
      ...{ step: 'planned', run: 'station', grinderIds: [grinderId], opensAt: now, from: now },
      ...{ people: [{ personId: by.personId, from: now }], detergent: false },
    }),
    signedOff: step({ step: 'signedOff', notRight: [] }),
  };
  return of[act];
}

function lockBody(shotId: string) {
  const expected = { timeS: 27, lowS: 25, highS: 29 };
  const said = { chance: 0.9, expected, nextCheckMin: 60, shotIds: [shotId] };
  return { recipeVersionId: house().recipe.id, setting: 30, doseTimeS: null, doseG: 18, ...said };
}

async function write(by: TestClient, act: Act) {
  const { kind, body } = bodyOf(act, by);
  const siteId = (await by.get<Session>('/api/session')).body.site.id;
  const station = kind === 'step' ? { grinderId: null, groupId: null } : {};
  const fact = { ...factOf(bar, siteId, 'purge', { purgeG: 1 }), kind, body, ...station } as NewFact;
  return { fact, answer: await by.send('POST', '/api/facts', fact) };
}

/** Undoes a fact in its own way: a step is taken back, anything else withdrawn by a correction. */
async function undo(by: TestClient, { id, siteId, kind }: { id: string; siteId: string; kind: string }) {
  const base = factOf(bar, siteId, 'purge', { purgeG: 1 });
  const entry =
    kind === 'step'
      ? {
          kind: 'step',
          grinderId: null,
          groupId: null,
          body: { step: 'takenBack', machineId: null, readings: [], takesBack: id },
        }
      : { kind: 'correction', body: { factId: id, withdrawn: true, shot: null } };
  return by.send('POST', '/api/facts', { ...base, ...entry });
}

const acts = Object.keys(rights) as Act[];
/** What a run in hand decides beside the table is told in the tests of the opening. */
const ofTheRun: readonly Act[] = ['planned', 'signedOff'];

describe('the table of rights', () => {
  it('names every kind of fact', () => {
    expect(acts).toEqual(expect.arrayContaining(factKinds.filter((kind) => kind !== 'correction')));
  });

  it.each(acts.filter((act) => !ofTheRun.includes(act)))('%s: the server does as it says', async (act) => {
    for (const role of roles) {
      const [one] = people[role];
      const { answer } = await write(one, act);
      const may = rights[act].write.includes(role);
      expect([role, answer.status, answer.status === 201 ? null : answer.problem.code]).toEqual(
        may ? [role, 201, null] : [role, 403, 'needsRole'],
      );
      if (!may) expect(answer.problem.detail).toMatch(/^Only .* does this\. Ask one/);
    }
    for (const role of roles) {
      const [one, other] = people[role];
      if (rights[act].write.includes(role)) {
        const own = await write(one, act);
        const mine = await undo(one, own.fact);
        expect([role, 'own', mine.status]).toEqual([role, 'own', rolesToUndo(act, true).includes(role) ? 201 : 403]);
      }
      const { fact } = await write(people.head[0], act);
      const theirs = await undo(other, fact);
      expect([role, 'others', theirs.status]).toEqual([
        role,
        'others',
        rolesToUndo(act, false).includes(role) ? 201 : 403,
      ]);
    }
  });
});

describe('in plain words', () => {
  type Line = [says: string, who: Role, does: (client: TestClient) => Promise<{ status: number }>, status: number];
  const toldBy = (by: TestClient, taster: TestClient) => async () => {
    const siteId = (await by.get<Session>('/api/session')).body.site.id;
    const body = { ...bodyOf('tasted', by).body, tasterId: taster.personId };
    return by.send('POST', '/api/facts', {
      ...factOf(bar, siteId, 'purge', { purgeG: 1 }),
      ...{ kind: 'step', grinderId: null, groupId: null, body },
    });
  };
  const writes = (act: Act) => async (client: TestClient) => (await write(client, act)).answer;
  const undoes = (act: Act, role: Role) => async (client: TestClient) =>
    undo(client, (await write(client === people[role][1] ? client : people[role][0], act)).fact);

  it.each<Line>([
    ['a trainee pulls shots', 'trainee', writes('shot'), 201],
    ['a trainee weighs doses', 'trainee', writes('dose'), 201],
    ['a trainee turns the collar', 'trainee', writes('collarMove'), 201],
    ['a trainee purges', 'trainee', writes('purge'), 201],
    ['a trainee says what the grounds look like', 'trainee', writes('seen'), 201],
    ['a trainee fills a hopper', 'trainee', writes('hopper'), 201],
    ['a trainee puts a bag in', 'trainee', writes('newBag'), 201],
    ['a trainee rinses', 'trainee', writes('rinsed'), 201],
    ['a trainee switches on', 'trainee', writes('switchedOn'), 201],
    ['a trainee checks the milk station', 'trainee', writes('milk'), 201],
    ['a trainee tastes', 'trainee', writes('tasted'), 201],
    ['a trainee locks nothing', 'trainee', writes('lock'), 403],
    ['a trainee leaves nothing out', 'trainee', writes('skipped'), 403],
    ['a trainee decides nothing by taste', 'trainee', writes('tasteSettled'), 403],
    ['a trainee mends no screen', 'trainee', writes('mended'), 403],
    ['a trainee begins no trial', 'trainee', writes('trialBegan'), 403],
    ['a trainee plans no run', 'trainee', writes('planned'), 403],
    ['a trainee signs nothing off', 'trainee', writes('signedOff'), 403],
    ['a trainee takes back their own shot', 'trainee', undoes('shot', 'trainee'), 201],
    ['a trainee takes back no shot of a barista', 'trainee', undoes('shot', 'barista'), 403],
    ['a trainee takes back no shot of the head', 'trainee', undoes('shot', 'head'), 403],
    ['a trainee takes back no lock', 'trainee', undoes('lock', 'barista'), 403],
    ['a trainee takes back no rinse of another', 'trainee', undoes('rinsed', 'barista'), 403],
    ['a trainee takes back no decision of taste', 'trainee', undoes('tasteSettled', 'head'), 403],
    ['a barista locks', 'barista', writes('lock'), 201],
    ['a barista leaves a job out', 'barista', writes('skipped'), 201],
    ['a barista decides by taste', 'barista', writes('tasteSettled'), 201],
    ['a barista takes back their own lock', 'barista', undoes('lock', 'barista'), 201],
    ['a barista takes back no lock of the head', 'barista', undoes('lock', 'head'), 403],
    ['a barista takes back a trainee’s shot', 'barista', undoes('shot', 'trainee'), 201],
    ['a barista takes back what another left out', 'barista', undoes('skipped', 'head'), 201],
    ['a barista mends a screen', 'barista', writes('mended'), 201],
    ['a barista begins a trial', 'barista', writes('trialBegan'), 201],
    ['the head locks', 'head', writes('lock'), 201],
    ['the head takes back a barista’s lock', 'head', undoes('lock', 'barista'), 201],
    ['the head takes back a trainee’s rinse', 'head', undoes('rinsed', 'trainee'), 201],
    ['the office takes a bag in', 'office', writes('newBag'), 201],
    ['the office pulls no shots', 'office', writes('shot'), 403],
    ['the office locks nothing', 'office', writes('lock'), 403],
    ['the office takes back no shot', 'office', undoes('shot', 'head'), 403],
    ['the office decides nothing by taste', 'office', writes('tasteSettled'), 403],
  ])('%s', async (_, who, does, status) => {
    expect((await does(people[who][1])).status).toBe(status);
  });

  it('a trainee writes no tasting in the head’s name; a barista writes what a head said', async () => {
    const [head] = people.head;
    expect((await toldBy(people.trainee[0], head)()).status).toBe(403);
    expect((await toldBy(people.barista[0], head)()).status).toBe(201);
  });

  it('a trainee locks with a barista’s yes, given by PIN on the spot; it says whose, and is no yes for anybody else', async () => {
    const [trainee, other] = people.trainee;
    const [barista] = people.barista;
    const wrong = await trainee.send('POST', '/api/yes', { personId: barista.personId, pin: '1111' });
    expect([wrong.status, wrong.problem.code]).toEqual([401, 'wrongPin']);
    const yes = await trainee.send<{ id: string }>('POST', '/api/yes', { personId: barista.personId, pin: '4951' });
    expect(yes.status).toBe(201);
    const lock = async (by: TestClient, yesId: string) => {
      const siteId = (await by.get<Session>('/api/session')).body.site.id;
      const fact = { ...factOf(bar, siteId, 'purge', { purgeG: 1 }), ...bodyOf('lock', by), yesId };
      return by.send<RecordedFact>('POST', '/api/facts', fact);
    };
    const locked = await lock(trainee, yes.body.id);
    expect([locked.status, locked.body.approvedBy]).toEqual([201, barista.personId]);
    expect((await lock(other, yes.body.id)).status).toBe(403);
    expect((await lock(trainee, uuidv4())).status).toBe(403);
    // Another trainee's yes gives no right that they have not.
    const weak = await trainee.send<{ id: string }>('POST', '/api/yes', { personId: other.personId, pin: '4951' });
    expect((await lock(trainee, weak.body.id)).status).toBe(403);
    const head = await barista.send<{ id: string }>('POST', '/api/yes', {
      ...{ personId: people.head[0].personId, pin: '4951' },
    });
    const { fact } = await write(people.head[1], 'lock');
    const base = factOf(bar, fact.siteId, 'purge', { purgeG: 1 });
    const correction = { ...base, kind: 'correction', body: { factId: fact.id, withdrawn: true, shot: null } };
    expect((await barista.send('POST', '/api/facts', correction)).status).toBe(403);
    expect((await barista.send('POST', '/api/facts', { ...correction, yesId: head.body.id })).status).toBe(201);
  });

  it('a house may want the PIN of somebody who is signed off, for what is decided at a station and for nothing else', async () => {
    const [head] = people.head;
    const [barista, other] = people.barista;
    const choose = async (alone: 'said' | 'asked') => {
      const { body } = await head.get<Policies>('/api/house/policies');
      const [inForce] = body.versions;
      const change = { ...policyOf(inForce!), alone, basedOn: inForce!.version, reason: 'Newcomers lock alone' };
      expect((await head.send('POST', '/api/house/policies', change)).status).toBe(201);
    };
    expect((await write(barista, 'lock')).answer.status).toBe(201);
    await choose('asked');
    const { fact, answer } = await write(barista, 'lock');
    expect([answer.status, answer.problem.code]).toEqual([403, 'notSignedOff']);
    expect((await write(barista, 'shot')).answer.status).toBe(201);
    expect((await write(head, 'lock')).answer.status).toBe(201);
    const withYesOf = async (personId: string, pin: string) => {
      const yes = await barista.send<{ id: string }>('POST', '/api/yes', { personId, pin });
      return barista.send<RecordedFact>('POST', '/api/facts', { ...fact, yesId: yes.body.id });
    };
    expect((await withYesOf(other.personId, '4951')).problem.code).toBe('notSignedOff');
    const tobin = await new TestClient(test).signIn('Tobin');
    expect((await withYesOf(tobin.personId, '1357')).body.approvedBy).toBe(tobin.personId);
    // From now on the house keeps who may work that machine: whoever dials in everywhere else has not been shown it.
    const machineId = bar.machines[0]!.id;
    const kept = (await head.get<{ sheets: Kept<PersonSheet>[] }>('/api/team/people')).body.sheets;
    const noor = kept.find(({ sheet }) => sheet.name === 'Noor')!;
    const shown = { skill: `machine:${machineId}`, on: '2026-01-01', until: null };
    const signOffs = [...noor.sheet.signOffs, shown];
    const put = await head.send('PUT', `/api/team/people/${noor.id}`, {
      basedOn: noor.revision,
      sheet: { ...noor.sheet, signOffs },
    });
    expect(put.status).toBe(200);
    expect((await write(tobin, 'lock')).answer.problem.detail).toContain('this machine');
    const byNoor = await new TestClient(test).signIn('Noor');
    expect((await write(byNoor, 'lock')).answer.status).toBe(201);
    await choose('said');
    expect((await write(barista, 'lock')).answer.status).toBe(201);
  });

  it('what was kept once is answered as done, though the right is gone since', async () => {
    const [, barista] = people.barista;
    const { fact, answer } = await write(barista, 'lock');
    expect(answer.status).toBe(201);
    await people.head[0].send('PUT', `/api/team/people/${barista.personId}`, {
      basedOn: 1,
      sheet: { name: 'Other barista', role: 'trainee' },
    });
    expect((await barista.send('POST', '/api/facts', fact)).status).toBe(200);
    expect((await write(barista, 'lock')).answer.status).toBe(403);
  });
});
