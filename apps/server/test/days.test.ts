import type { Bar } from '@tempera/contract/bar';
import type { DayTold, GrinderHistory } from '@tempera/contract/day';
import type { Session } from '@tempera/contract/team';
import type { NewFact } from '@tempera/contract/journal';
import { sum } from '@tempera/core/numbers';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
let bar: Bar;
let siteId: string;
let grinderId: string;

beforeAll(async () => {
  test = await startTestServer({ demo: true });
  ines = await new TestClient(test).signIn('Ines');
  bar = await ines.bar();
  siteId = (await ines.get<Session>('/api/session')).body.site.id;
  grinderId = bar.grinders.find(({ name }) => name === 'House')!.id;
});
afterAll(() => test.close());

const daysOf = async (days = 731): Promise<DayTold[]> =>
  (await ines.get<{ days: DayTold[] }>(`/api/day/summaries?grinderId=${grinderId}&days=${days}`)).body.days;
const history = async (): Promise<GrinderHistory> =>
  (await ines.get<GrinderHistory>(`/api/day/history?grinderId=${grinderId}&days=92`)).body;
const timedOn = (days: DayTold[], day: string): number => days.find((one) => one.day === day)?.timed ?? 0;

describe('days in numbers', () => {
  it('say what the shots of the same days say', async () => {
    const [days, { shots, doses, capability }] = [await daysOf(), await history()];
    expect(days.map(({ day }) => day)).toEqual([...new Set(days.map(({ day }) => day))].toSorted());
    expect(days.length).toBeGreaterThan(30);
    expect(sum(days.map((day) => day.shots))).toBe(shots.length);
    expect(sum(days.map(({ timed }) => timed))).toBe(capability.of);
    expect(sum(days.map(({ inside }) => inside))).toBe(capability.inside);
    expect(sum(days.map((day) => day.doses))).toBe(doses.length);
    expect(await daysOf(7)).toEqual(days.slice(-(await daysOf(7)).length));
  });

  it('are made anew where a shot comes late, where it is corrected, and where it is taken back', async () => {
    const before = await daysOf();
    // Three weeks ago, by a tablet that comes back now.
    const { day } = before.at(-21)!;
    const at = `${day}T15:00:00.000Z`;
    const late = factOf(bar, siteId, 'shot', shotBody(bar, { timeS: 27, service: true, check: true }), { at });
    const post = async (fact: NewFact): Promise<number> => (await ines.send('POST', '/api/facts', fact)).status;
    expect(await post(late)).toBe(201);
    const after = await daysOf();
    expect(timedOn(after, day)).toBe(timedOn(before, day) + 1);
    const others = (days: DayTold[]): DayTold[] => days.filter((one) => one.day !== day);
    expect(others(after)).toEqual(others(before));

    const correct = (withdrawn: boolean, shot: { timeS: number } | null): Promise<number> =>
      post(factOf(bar, siteId, 'correction', { factId: late.id, withdrawn, shot }));
    expect(await correct(false, { timeS: 60 })).toBe(201);
    const mended = await daysOf();
    const insideOn = (days: DayTold[]): number => days.find((one) => one.day === day)!.inside;
    expect(insideOn(mended)).toBe(insideOn(after) - 1);
    expect(await correct(true, null)).toBe(201);
    expect(await daysOf()).toEqual(before);
  });

  it('are read as they were made, and made again by another house’s clock', async () => {
    const before = await daysOf();
    const owner = new pg.Client({ connectionString: test.databaseUrl });
    await owner.connect();
    // What stands in the table is what is read: it was not made again.
    await owner.query(`UPDATE day_summary SET summary = jsonb_set(summary, '{bags}', '77') WHERE grinder_id = $1`, [
      grinderId,
    ]);
    expect((await daysOf()).slice(0, -1).every(({ bags }) => bags === 77)).toBe(true);
    await owner.query(`UPDATE days_made SET made_with = 'another clock' WHERE grinder_id = $1`, [grinderId]);
    expect(await daysOf()).toEqual(before);
    await owner.end();
  });

  it('are of one’s own café only', async () => {
    const answer = await ines.get(`/api/day/summaries?grinderId=${crypto.randomUUID()}`);
    expect(answer.status).toBe(404);
  });
});

describe('a quarter of a busy grinder', () => {
  it('is told by the shot from the day on that leaves room for all of them, and by days before it', async () => {
    const guest = bar.grinders.find(({ name }) => name === 'Guest')!;
    const ask = async (): Promise<GrinderHistory> =>
      (await ines.get<GrinderHistory>(`/api/day/history?grinderId=${guest.id}&days=92`)).body;
    expect((await ask()).cutAt).toBeNull();
    // A shot a minute for a day and a half, as a machine counts them.
    const owner = new pg.Client({ connectionString: test.databaseUrl });
    await owner.connect();
    await owner.query(
      `INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body)
       SELECT overlay(gen_random_uuid()::text placing '7' from 15 for 1)::uuid, $1, 'shot', t.at, t.at, $2, $3, $4, $5
         FROM (SELECT now() - interval '3 days' + n * interval '1 minute' AS at FROM generate_series(1, 2160) n) t`,
      [
        siteId,
        ines.personId,
        guest.id,
        bar.machines[0]!.groups[0]!.id,
        shotBody(bar, { recipeVersionId: guest.recipe.id }),
      ],
    );
    await owner.end();
    const { cutAt, shots } = await ask();
    expect(cutAt).not.toBeNull();
    expect(shots.length).toBeGreaterThan(0);
    expect(shots.length).toBeLessThanOrEqual(1_500);
    expect(shots.every(({ day }) => day >= cutAt!)).toBe(true);
    const told = (await ines.get<{ days: DayTold[] }>(`/api/day/summaries?grinderId=${guest.id}&days=92`)).body.days;
    expect(sum(told.map((day) => day.shots))).toBeGreaterThan(2_160);
  });
});
