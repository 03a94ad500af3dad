import type { Bag, BagSheet, CoffeeUse, Stock } from '@tempera/contract/coffee';
import type { Devices, NewCafe, Session, Welcome } from '@tempera/contract/team';
import type { Page } from '@tempera/contract/sheet';
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

const stock = async (): Promise<Stock> => (await ines.get<Stock>('/api/coffee/stock')).body;
const bagSheet = (coffeeId: string, change: Partial<BagSheet> = {}): BagSheet => ({
  coffeeId,
  roastedOn: '2026-11-10',
  weightG: 1_000,
  freezes: [],
  openedOn: null,
  finishedOn: null,
  portionOf: null,
  label: '',
  ...change,
});
async function newBag(coffeeId: string, change: Partial<BagSheet> = {}): Promise<string> {
  const id = uuidv4();
  await ines.send('PUT', `/api/coffee/bags/${id}`, { basedOn: 0, sheet: bagSheet(coffeeId, change) });
  return id;
}
async function pour(bagId: string, coffeeId: string, grinder = 'House'): Promise<void> {
  const bar = await ines.bar();
  const grinderId = bar.grinders.find(({ name }) => name === grinder)!.id;
  const body = { roastedOn: '2026-11-10', bagId, coffeeId };
  const { status } = await ines.send(
    'POST',
    '/api/facts',
    factOf(bar, bar.facts[0]!.siteId, 'newBag', body, { grinderId }),
  );
  expect(status).toBe(201);
}

describe('bags', () => {
  it('are closed until one goes into a hopper, and used up when the next one does', async () => {
    const { coffees } = await stock();
    const canopy = coffees.find(({ sheet }) => sheet.name === 'Canopy blend')!.id;
    const [first, second] = [await newBag(canopy), await newBag(canopy)];
    const one = async (id: string): Promise<Bag> => (await ines.get<Bag>(`/api/coffee/bags/${id}`)).body;
    expect(await one(first)).toMatchObject({ state: 'closed', openedAt: null, coffee: 'Canopy blend' });
    await pour(first, canopy);
    expect(await one(first)).toMatchObject({ state: 'hopper', openedAt: expect.any(String) });
    await pour(second, canopy);
    expect((await one(first)).state).toBe('used');
    expect((await stock()).bags.map(({ id }) => id)).not.toContain(first);
    expect((await stock()).bags.map(({ id }) => id)).toContain(second);
  });

  it('past their window are known at the bench, unless the freezer kept them', async () => {
    const { coffees } = await stock();
    const canopy = coffees.find(({ sheet }) => sheet.name === 'Canopy blend')!.id;
    const isPast = async () => (await ines.bar()).grinders.find(({ name }) => name === 'House')?.bagPast;
    const roastedOn = new Date(Date.now() - 90 * 86_400_000).toISOString().slice(0, 10);
    const thawed = new Date(Date.now() - 2 * 86_400_000).toISOString().slice(0, 10);
    const frozen = new Date(Date.now() - 86 * 86_400_000).toISOString().slice(0, 10);
    await pour(await newBag(canopy, { roastedOn }), canopy);
    expect(await isPast()).toBe(true);
    await pour(await newBag(canopy, { roastedOn, freezes: [{ on: frozen, until: thawed }] }), canopy);
    expect(await isPast()).toBe(false);
  });

  it('change the coffee and the recipe of a grinder when they are of another coffee, until that is taken back', async () => {
    const { coffees } = await stock();
    const rill = coffees.find(({ sheet }) => sheet.name === 'Rill, brewed')!.id;
    const bag = await newBag(rill);
    await pour(bag, rill, 'Decaf');
    const bar = await ines.bar();
    const decaf = bar.grinders.find(({ name }) => name === 'Decaf');
    expect(decaf).toMatchObject({ coffee: 'Rill, brewed', recipe: { name: 'Brewed by the group' } });
    const fact = bar.facts.find(({ kind, body }) => kind === 'newBag' && 'bagId' in body && body.bagId === bag)!;
    const withdrawn = { factId: fact.id, withdrawn: true, shot: null };
    await ines.send(
      'POST',
      '/api/facts',
      factOf(bar, fact.siteId, 'correction', withdrawn, { grinderId: fact.grinderId }),
    );
    expect((await ines.bar()).grinders.find(({ name }) => name === 'Decaf')?.coffee).toBe('Dusk decaf');
    expect((await ines.get<Bag>(`/api/coffee/bags/${bag}`)).body.state).toBe('closed');
  });

  it('of another coffee than the fact says are refused', async () => {
    const { coffees, bags } = await stock();
    const bag = bags.find(({ coffee }) => coffee === 'Canopy blend')!;
    const other = coffees.find(({ sheet }) => sheet.name === 'Dusk decaf')!;
    const bar = await ines.bar();
    const fact = factOf(bar, bar.facts[0]!.siteId, 'newBag', { roastedOn: null, bagId: bag.id, coffeeId: other.id });
    expect((await ines.send('POST', '/api/facts', fact)).problem.code).toBe('unknownPart');
  });

  it.each([
    [{ freezes: [{ on: '2026-11-01', until: null }] }, 'sheet.freezes'],
    [{ freezes: [{ on: '2026-11-12', until: '2026-11-11' }] }, 'sheet.freezes.0.until'],
    [{ openedOn: '2026-10-01' }, 'sheet.openedOn'],
    [{ weightG: 3 }, 'sheet.weightG'],
    [{ roastedOn: 'Tuesday' }, 'sheet.roastedOn'],
  ])('refuse %o at its field', async (change, path) => {
    const { coffees } = await stock();
    const { status, problem } = await ines.send('PUT', `/api/coffee/bags/${uuidv4()}`, {
      basedOn: 0,
      sheet: { ...bagSheet(coffees[0]!.id), ...change },
    });
    expect([status, problem.fields?.[0]?.path]).toEqual([422, path]);
  });

  it('stay a page at a time when there are five thousand', async () => {
    const { coffees } = await stock();
    const siteId = (await ines.bar()).facts[0]!.siteId;
    await test.server.db.query(
      `INSERT INTO bag (id, site_id, coffee_id, roasted_on, weight_g, freezes, label)
       SELECT gen_random_uuid(), $1, $2, date '2020-01-01' + n % 900, 1000, '[]', 'lot ' || n FROM generate_series(1, 5000) n`,
      [siteId, coffees[0]!.id],
    );
    const page = async (query: string): Promise<Page<Bag>> =>
      (await ines.get<Page<Bag>>(`/api/coffee/bags?${query}`)).body;
    const old = await page('search=lot&sort=roastedOn&perPage=50');
    // Counted as far as somebody may turn pages from here, and from the last page to the last bag.
    expect([old.total, old.rows.length, old.rows[0]?.sheet.roastedOn]).toEqual([21 * 50, 50, '2020-01-01']);
    expect(await page('search=lot&sort=roastedOn&perPage=50&page=100')).toMatchObject({ total: 5_000 });
    expect((await page('search=lot%204711')).rows.map(({ sheet }) => sheet.label)).toEqual(['lot 4711']);
    expect((await page('state=hopper')).rows.every(({ state }) => state === 'hopper')).toBe(true);
  });
});

describe('what is used', () => {
  it('sets calibration against served, in grams and money, by business day and grinder', async () => {
    const { body } = await ines.get<CoffeeUse>('/api/coffee/use');
    expect(body.currency).toBe('EUR');
    const bar = await ines.bar();
    const house = bar.grinders.find(({ name }) => name === 'House')!.id;
    const days = body.days.filter(({ grinderId }) => grinderId === house);
    expect(days.length).toBeGreaterThan(20);
    const full = days.slice(3, 20);
    // Two bags of 2.5 kg a day go through; a morning and a check take a few doses.
    const through =
      full.reduce((sum, { calibrationG, servedG }) => sum + calibrationG + (servedG ?? 0), 0) / full.length;
    expect(through).toBeGreaterThan(4_500);
    expect(through).toBeLessThan(5_500);
    for (const { calibrationG, calibrationCost } of full) {
      expect(calibrationG).toBeGreaterThan(17);
      expect(calibrationCost).toBeCloseTo((22 * calibrationG) / 1_000, 6);
    }
    const canopy = body.daily.find(({ grams }) => grams.length > 10 && grams[0]! > 4_000);
    expect(canopy).toBeDefined();
  });
});

describe('an empty house', () => {
  const newCafe = (): NewCafe => ({
    code: 'garden gate',
    id: uuidv4(),
    cafe: {
      name: 'The Potting Shed',
      timeZone: 'Australia/Brisbane',
      dayStartsMin: 180,
      opensMin: 390,
      closesMin: 960,
      week: [],
      exceptions: [],
      shifts: [],
      altitudeM: 320,
      currency: 'AUD',
      unitSchool: 'customary',
    },
    head: { id: uuidv4(), name: 'Wren', pin: '4951' },
  });

  it('is set up once, by its first head barista, who is signed in', async () => {
    const empty = await startTestServer({ demo: false });
    const wren = new TestClient(empty);
    expect((await wren.get<Welcome>('/api/welcome')).body.sites).toEqual([]);
    expect((await wren.send('POST', '/api/cafe', { ...newCafe(), head: { name: 'Wren' } })).status).toBe(422);
    const guessed = await wren.send('POST', '/api/cafe', { ...newCafe(), code: 'open sesame' });
    expect([guessed.status, guessed.problem.code]).toEqual([401, 'wrongCode']);
    const common = await wren.send('POST', '/api/cafe', {
      ...newCafe(),
      head: { id: uuidv4(), name: 'Wren', pin: '1234' },
    });
    expect([common.status, common.problem.code]).toEqual([422, 'commonPin']);
    const cafe = newCafe();
    const { status, body } = await wren.send<Session>('POST', '/api/cafe', cafe);
    expect(status).toBe(201);
    expect(body).toMatchObject({ person: { name: 'Wren', role: 'head' }, site: { timeZone: 'Australia/Brisbane' } });
    expect(body.units.mass).toBe('oz');
    expect((await wren.send('POST', '/api/cafe', { ...cafe, code: ' gardengate ' })).status).toBe(201);
    expect((await wren.bar()).grinders).toEqual([]);
    // It is the house's first device, once: nobody else reads a name.
    expect((await wren.get<Devices>('/api/team/devices')).body.devices).toMatchObject([{ here: true }]);
    const { sites } = (await new TestClient(empty).get<Welcome>('/api/welcome')).body;
    expect(sites).toMatchObject([{ enrolled: false, people: [] }]);
    const late = await new TestClient(empty).send('POST', '/api/cafe', newCafe());
    expect([late.status, late.problem.code]).toEqual([409, 'alreadySetUp']);
    await empty.close();
  });
});

describe("a person's units", () => {
  it('are remembered with the person, on every device', async () => {
    const units = { mass: 'oz', volume: 'fl oz', temperature: '°F', pressure: 'psi' };
    expect((await ines.send<Session>('PUT', '/api/session/units', units)).body.units).toEqual(units);
    const phone = await new TestClient(test).signIn('Ines');
    expect((await phone.get<Session>('/api/session')).body.units).toEqual(units);
    expect((await ines.send('PUT', '/api/session/units', { ...units, mass: 'stone' })).status).toBe(422);
  });
});
