import type { GroupSheet, Upkeep } from '@tempera/contract/bar';
import type { CoffeeUse, Stock } from '@tempera/contract/coffee';
import type { NewStep } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import { closedBefore } from '@tempera/core/opening';
import { standingFacts, type StepBody } from '@tempera/core/facts';
import { businessDay } from '@tempera/core/house';
import { v4 as uuidv4 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { factOf, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
});
afterAll(() => test.close());

async function write(body: StepBody, by = ines): Promise<number> {
  const bar = await by.bar();
  const fact = factOf(bar, bar.facts[0]!.siteId, 'purge', { purgeG: 1 });
  const step = { ...fact, kind: 'step', grinderId: null, groupId: null, body } as unknown as NewStep;
  return (await by.send('POST', '/api/facts', step)).status;
}

describe('a hopper that is weighed at closing', () => {
  it('is the stock from then on, whatever its bags said', async () => {
    const { grinders } = await ines.bar();
    const house = grinders.find(({ name }) => name === 'House')!.id;
    expect(await write({ step: 'hopperEmptied', grinderId: house, tubG: 612 })).toBe(201);
    const { body } = await ines.get<CoffeeUse>('/api/coffee/use');
    const hopper = body.hoppers.find(({ grinderId }) => grinderId === house)!;
    expect(hopper.leftG).toBeGreaterThan(605);
    expect(hopper.leftG).toBeLessThanOrEqual(612);
    expect(hopper.weighedAt).not.toBeNull();
  });

  it('says nothing where nobody weighed it', async () => {
    const { grinders } = await ines.bar();
    const decaf = grinders.find(({ name }) => name === 'Decaf')!.id;
    const before = (await ines.get<CoffeeUse>('/api/coffee/use')).body.hoppers;
    await write({ step: 'hopperEmptied', grinderId: decaf, tubG: null });
    const after = (await ines.get<CoffeeUse>('/api/coffee/use')).body.hoppers;
    const leftIn = (hoppers: typeof before) => hoppers.find(({ grinderId }) => grinderId === decaf)!.weighedAt;
    expect(leftIn(after)).toBe(leftIn(before));
  });
});

describe('upkeep', () => {
  const itemOf = async (what: string, stationId: string) =>
    (await ines.get<Upkeep>('/api/bar/upkeep')).body.items.find(
      (item) => item.what === what && item.stationId === stationId,
    )!;

  it('is what the sheets ask for, and what the journal says was done last', async () => {
    const { machines, grinders } = await ines.bar();
    const moss = machines.find(({ name }) => name === 'Moss')!.id;
    const before = await itemOf('filter', moss);
    expect(before.months).toBe(6);
    expect(before.counted).toBeGreaterThan(0);
    expect(await write({ step: 'upkept', what: 'filter', stationId: moss, by: '' })).toBe(201);
    const after = await itemOf('filter', moss);
    expect(after.lastOn! > before.lastOn!).toBe(true);
    expect(after).toMatchObject({ counted: 0, lastBy: 'Ines' });
    // New burrs count from nothing.
    const house = grinders.find(({ name }) => name === 'House')!.id;
    expect((await itemOf('burrs', house)).counted).toBeGreaterThan(180);
    await write({ step: 'upkept', what: 'burrs', stationId: house, by: 'a technician' });
    expect(await itemOf('burrs', house)).toMatchObject({ counted: 0, count: 650, lastBy: 'a technician' });
  });

  it('is written down by whoever holds a shift, and of stations of this house only', async () => {
    const pell = await new TestClient(test).signIn('Pell');
    const { machines } = await ines.bar();
    expect(await write({ step: 'upkept', what: 'filter', stationId: machines[0]!.id, by: '' }, pell)).toBe(403);
    const nowhere = '00000000-0000-4000-8000-00000000dead';
    expect(await write({ step: 'upkept', what: 'filter', stationId: nowhere, by: '' })).toBe(422);
  });
});

describe('what work changes on a sheet', () => {
  type Sheets<T> = { sheets: { id: string; revision: number; changedBy: string | null; sheet: T }[] };
  const readGroups = async () => (await ines.get<Sheets<GroupSheet>>('/api/bar/groups')).body.sheets;

  it('is there with the step, whoever did it, once, and until it is taken back', async () => {
    const noor = await new TestClient(test).signIn('Noor');
    const before = (await readGroups()).find(({ sheet }) => sheet.buttons.length > 0)!;
    const now = async () => (await readGroups()).find(({ id }) => id === before.id)!;
    const [{ name, counts }] = before.sheet.buttons as [{ name: string; counts: number }];
    // Not theirs to write by itself: it is the head's and the office's.
    const whole = { basedOn: before.revision, retired: false, sheet: before.sheet };
    expect((await noor.send('PUT', `/api/bar/groups/${before.id}`, whole)).status).toBe(403);
    const bar = await noor.bar();
    const step = (body: StepBody) =>
      ({
        ...factOf(bar, bar.facts[0]!.siteId, 'purge', { purgeG: 1 }),
        ...{ kind: 'step', grinderId: null, groupId: null, body },
      }) as unknown as NewStep;
    const measured = step({
      ...{ step: 'button', groupId: before.id, button: name, count: counts, yieldsG: [33, 33.4, 32.8] },
      nextCount: counts + 12,
    });
    for (const status of [201, 200]) expect((await noor.send('POST', '/api/facts', measured)).status).toBe(status);
    expect(await now()).toMatchObject({ revision: before.revision + 1, changedBy: 'Noor' });
    expect((await now()).sheet.buttons[0]).toEqual({ name, counts: counts + 12 });
    // One that was measured before that, at a tablet that was out of reach, comes late and changes nothing.
    const late = step({ ...measured.body, nextCount: counts - 5 } as StepBody);
    expect((await noor.send('POST', '/api/facts', late)).status).toBe(201);
    expect((await now()).sheet.buttons[0]).toEqual({ name, counts: counts + 12 });
    const back = { step: 'takenBack' as const, machineId: null, readings: [], takesBack: measured.id };
    expect((await noor.send('POST', '/api/facts', step(back))).status).toBe(201);
    expect((await now()).sheet).toEqual(before.sheet);
  });

  it('ends the stay of a bag in the freezer, and refuses one of another house', async () => {
    const stock = async () => (await ines.get<Stock>('/api/coffee/stock')).body.bags;
    const bag = (await stock()).find(({ state }) => state === 'closed')!;
    const [bagId, { sheet }] = [uuidv4(), bag];
    const { site } = (await ines.get<Session>('/api/session')).body;
    const today = businessDay(Date.now(), site.timeZone, site.dayStartsMin);
    const frozen = { ...sheet, freezes: [{ on: sheet.roastedOn, until: null }] };
    await ines.send('PUT', `/api/coffee/bags/${bagId}`, { basedOn: 0, retired: false, sheet: frozen });
    expect(await write({ step: 'thawed', bagId })).toBe(201);
    expect((await stock()).find(({ id }) => id === bagId)!.sheet.freezes).toEqual([
      { on: sheet.roastedOn, until: today },
    ]);
    expect(await write({ step: 'thawed', bagId: uuidv4() })).toBe(422);
  });
});

describe('how the last closing left the bar', () => {
  it('is read by the next opening, from the evening before', async () => {
    const { steps } = await ines.bar();
    const closed = closedBefore(standingFacts(steps), Date.now() - 2 * 3_600_000);
    expect(closed?.signedAtMs).toEqual(expect.any(Number));
    expect(closed?.tomorrow?.opensById).toEqual(expect.any(String));
  });

  it('may be begun by a barista whatever the morning left open, and not begun anew', async () => {
    const tobin = await new TestClient(test).signIn('Tobin');
    const now = Date.now();
    const planned = (fromMs: number): StepBody => ({
      step: 'planned',
      run: 'closing',
      opensAt: new Date(now + 3_600_000).toISOString(),
      from: new Date(fromMs).toISOString(),
      people: [{ personId: tobin.personId, from: new Date(fromMs).toISOString() }],
      detergent: false,
    });
    expect(await write(planned(now), tobin)).toBe(201);
    expect(await write(planned(now + 1_000), tobin)).toBe(403);
    // Whoever holds the shift signs a closing.
    expect(await write({ step: 'signedOff', notRight: [] }, tobin)).toBe(201);
  });
});
