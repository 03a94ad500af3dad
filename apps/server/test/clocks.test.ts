import type { Bar } from '@tempera/contract/bar';
import type { RecordedFact } from '@tempera/contract/journal';
import type { Stock } from '@tempera/contract/coffee';
import { standingFacts } from '@tempera/core/facts';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
let noor: TestClient;
let bar: Bar;
let siteId: string;

beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
  noor = await new TestClient(test).signIn('Noor');
  bar = await ines.bar();
  siteId = bar.facts[0]!.siteId;
});
afterAll(() => test.close());

const MIN = 60_000;
const at = (minutesFromNow: number): string => new Date(Date.now() + minutesFromNow * MIN).toISOString();
const shotAt = (when: string, change: object = {}) =>
  factOf(bar, siteId, 'shot', shotBody(bar), { at: when, ...change });
const post = (fact: object) => ines.send<RecordedFact>('POST', '/api/facts', fact);

describe('a device whose clock is wrong', () => {
  it('a quarter of an hour fast and measured, says when it happened all the same', async () => {
    const { status, body } = await post(shotAt(at(14), { skewMs: 15 * MIN }));
    expect(status).toBe(201);
    expect(Math.abs(Date.parse(body.at) - (Date.now() - MIN))).toBeLessThan(5_000);
    expect(body).toMatchObject({ skewMs: 15 * MIN, clock: null });
    expect(Date.parse(body.deviceAt) - Date.parse(body.at)).toBe(15 * MIN);
  });

  it('dates nothing later than its arrival, and is not refused for trying', async () => {
    for (const ahead of [at(15), at(60 * 24 * 365 * 200)]) {
      const { status, body } = await post(shotAt(ahead));
      expect(status).toBe(201);
      expect(body).toMatchObject({ at: body.receivedAt, deviceAt: ahead, clock: 'ahead' });
    }
  });

  it('that stands before the first day is kept and flagged', async () => {
    const { status, body } = await post(shotAt('1970-01-01T00:07:00.000Z'));
    expect(status).toBe(201);
    expect(body).toMatchObject({ at: '1970-01-01T00:07:00.000Z', clock: 'early' });
    expect((await post(shotAt('0001-01-01T00:00:00Z'))).status).toBe(201);
  });

  it('may send the same again after its clock was measured', async () => {
    const fact = shotAt(at(10));
    expect((await post(fact)).status).toBe(201);
    expect((await post({ ...fact, skewMs: 10 * MIN })).status).toBe(200);
    expect((await post({ ...fact, at: at(11) })).problem.code).toBe('idTaken');
  });

  it('hides nothing of what others wrote honestly, however many locks it dated ahead', async () => {
    const lock = {
      recipeVersionId: bar.grinders.find(({ name }) => name === 'House')!.recipe.id,
      setting: 30,
      doseTimeS: 9,
      chance: 0.95,
      expected: { timeS: 27, lowS: 25, highS: 29 },
      nextCheckMin: 60,
    };
    for (const ahead of [7, 8, 9]) {
      const shot = await post(shotAt(at(0)));
      await post(factOf(bar, siteId, 'lock', { ...lock, shotIds: [shot.body.id] }, { at: at(ahead) }));
    }
    const honest = await post(shotAt(at(0), { body: shotBody(bar, { timeS: 21 }) }));
    const standing = standingFacts(
      (await ines.bar()).facts.filter(({ grinderId }) => grinderId === honest.body.grinderId),
    );
    expect(standing.at(-1)?.id).toBe(honest.body.id);
  });

  it('takes a fact back, though by its clock the taking back came first; lists say the same', async () => {
    const decaf = bar.grinders.find(({ name }) => name === 'Decaf')!;
    const stock = async (): Promise<Stock> => (await ines.get<Stock>('/api/coffee/stock')).body;
    const closed = (await stock()).bags.find(
      ({ state, sheet }) => state === 'closed' && sheet.coffeeId === decaf.coffeeId,
    )!;
    const body = { roastedOn: closed.sheet.roastedOn, bagId: closed.id, coffeeId: decaf.coffeeId };
    const bag = await post(factOf(bar, siteId, 'newBag', body, { grinderId: decaf.id }));
    expect((await stock()).bags.find(({ id }) => id === closed.id)?.state).toBe('hopper');
    const correct = (withdrawn: boolean, when: string) =>
      post(
        factOf(
          bar,
          siteId,
          'correction',
          { factId: bag.body.id, withdrawn, shot: withdrawn ? null : { flaw: null } },
          { grinderId: decaf.id, at: when },
        ),
      );
    expect((await correct(true, at(-30))).status).toBe(201);
    expect((await stock()).bags.find(({ id }) => id === closed.id)?.state).toBe('closed');
    expect(standingFacts((await ines.bar()).facts).some(({ id }) => id === bag.body.id)).toBe(false);
    expect((await correct(false, at(0))).status).toBe(201);
    expect((await stock()).bags.find(({ id }) => id === closed.id)?.state).toBe('hopper');
  });
});

describe('who did it', () => {
  it('is named in the fact, and nobody else signs it', async () => {
    const fact = { ...shotAt(at(0)), personId: noor.personId };
    expect((await post(fact)).problem.code).toBe('notYours');
    const kept = await noor.send<RecordedFact>('POST', '/api/facts', fact);
    expect(kept.status).toBe(201);
    expect(kept.body.personId).toBe(noor.personId);
    // Sent again by another it is still not theirs.
    expect((await post({ ...fact, personId: ines.personId })).problem.code).toBe('idTaken');
  });
});
