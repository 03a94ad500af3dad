import type { Bar, GrinderSheet, Learned } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import type { RecordedFact } from '@tempera/contract/journal';
import { memoryContextOf, targetOf } from '@tempera/contract/station';
import {
  advise,
  benchState,
  emptyMemory,
  updateWithFacts,
  posterior,
  responseOf,
  unpackMemory,
  knownOf,
  windowMiddleS,
  type BarMemory,
} from '@tempera/core/calibration';
import { factsSince, standingFacts } from '@tempera/core/facts';
import { setTimeout } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
let siteId: string;

beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
  siteId = (await ines.bar()).facts[0]!.siteId;
});
afterAll(() => test.close());

/** What a browser makes of the bar that it was handed. */
function foldOf(bar: Bar): BarMemory {
  const start = unpackMemory(bar.memory.state) ?? emptyMemory;
  return updateWithFacts(
    start,
    factsSince(standingFacts(bar.facts), Date.parse(bar.memory.upTo)),
    memoryContextOf(bar),
  );
}
function numbersOf(memory: BarMemory, nowMs: number): number[] {
  const { belief, noise } = posterior(memory, nowMs);
  return [...belief.mean, ...belief.covariance, noise.shape, noise.scale];
}
const snapshots = () =>
  test.server.db.query<{ upTo: Date; heardSeq: number }[]>(
    'SELECT up_to AS "upTo", heard_seq AS "heardSeq" FROM bar_memory ORDER BY up_to DESC',
  );
/** The bar with its memory made: who reads it on a slow machine is given an older one meanwhile, and told when it is there. */
async function madeBar(): Promise<Bar> {
  for (;;) {
    const bar = await ines.bar();
    const { upTo, state } = bar.memory;
    const made = await test.server.db.query<object[]>(
      'SELECT 1 FROM bar_memory WHERE up_to = $1 AND state = $2::jsonb',
      [upTo, JSON.stringify(state)],
    );
    if (made.length > 0) return bar;
    await setTimeout(100);
  }
}
const MADE = { timeout: 30_000 };
const post = (fact: object) => ines.send<RecordedFact>('POST', '/api/facts', fact);

describe('the memory of a bar', () => {
  it('is handed out with it, up to the start of the day, and a dropped one is made again to the same numbers', async () => {
    const bar = await madeBar();
    const nowMs = Date.now();
    const before = numbersOf(foldOf(bar), nowMs);
    expect(before.length).toBeGreaterThan(100);
    await test.server.db.query('DELETE FROM bar_memory');
    await test.restart();
    const after = numbersOf(foldOf(await madeBar()), nowMs);
    expect(after).toHaveLength(before.length);
    after.forEach((value, i) => expect(Math.abs(value - before[i]!)).toBeLessThan(1e-9));
    expect((await snapshots()).length).toBeGreaterThan(3);
  });

  it('is not written by a fact; a read catches up', async () => {
    const before = await snapshots();
    const bar = await madeBar();
    await post(factOf(bar, siteId, 'shot', shotBody(bar, { timeS: 24 })));
    expect(await snapshots()).toEqual(before);
    const shots = foldOf(await madeBar()).grinders[bar.grinders.find(({ name }) => name === 'House')!.id]!.shots;
    expect(shots).toBe(foldOf(bar).grinders[bar.grinders.find(({ name }) => name === 'House')!.id]!.shots + 1);
  });

  it('goes back for a correction of a shot of six weeks ago, as if it had been right from the first', async () => {
    const [old] = await test.server.db.query<{ id: string; grinderId: string }[]>(
      `SELECT id, grinder_id AS "grinderId" FROM fact WHERE kind = 'shot' ORDER BY at OFFSET 20 LIMIT 1`,
    );
    const bar = await madeBar();
    const correction = { factId: old!.id, withdrawn: false, shot: { timeS: 39 } };
    const nowMs = Date.now();
    const before = numbersOf(foldOf(bar), nowMs);
    expect((await post(factOf(bar, siteId, 'correction', correction, { grinderId: old!.grinderId }))).status).toBe(201);
    const rewound = numbersOf(foldOf(await madeBar()), nowMs);
    expect(rewound).not.toEqual(before);
    await test.server.db.query('DELETE FROM bar_memory');
    expect(numbersOf(foldOf(await madeBar()), nowMs)).toEqual(rewound);
  });

  it('goes back for the morning of a tablet that was offline yesterday', async () => {
    const bar = await madeBar();
    const nowMs = Date.now();
    const yesterday = new Date(Date.parse(bar.memory.upTo) - 3_600_000).toISOString();
    const before = foldOf(bar);
    await post(factOf(bar, siteId, 'shot', shotBody(bar, { timeS: 33 }), { at: yesterday }));
    const late = foldOf(await madeBar());
    expect(numbersOf(late, nowMs)).not.toEqual(numbersOf(before, nowMs));
    await test.server.db.query('DELETE FROM bar_memory');
    expect(numbersOf(foldOf(await madeBar()), nowMs)).toEqual(numbersOf(late, nowMs));
  });

  it('is made again when a sheet says something else, and serves no stale numbers after it', async () => {
    const bar = await madeBar();
    const house = bar.grinders.find(({ name }) => name === 'House')!;
    const perMark = async (): Promise<number> =>
      (await ines.get<Learned>('/api/bar/learned')).body.grinders.find(({ id }) => id === house.id)!.secondsPerMark;
    const before = await perMark();
    const write = async (secondsPerMark: number | null): Promise<void> => {
      const { sheets } = (await ines.get<{ sheets: Kept<GrinderSheet>[] }>('/api/bar/grinders')).body;
      const { revision: basedOn, sheet } = sheets.find(({ id }) => id === house.id)!;
      const change = { basedOn, sheet: { ...sheet, secondsPerMark } };
      expect((await ines.send('PUT', `/api/bar/grinders/${house.id}`, change)).status).toBe(200);
    };
    await write(6);
    // Six weeks of shots outweigh the sheet by now: another belief moves the number a little, and that is how it shows.
    await expect.poll(perMark, MADE).not.toBe(before);
    await write(house.secondsPerMark);
    await expect.poll(perMark, MADE).toBe(before);
  });

  it('says the same on the sheet, on the bench, and on the bench of another device', async () => {
    const bar = await madeBar();
    const guest = bar.grinders.find(({ name }) => name === 'Guest')!;
    const recipe = targetOf(guest.recipe);
    const { body: learned } = await ines.get<Learned>('/api/bar/learned');
    const sheet = learned.grinders.find(({ id }) => id === guest.id)!;
    const perMarkS = (of: Bar): number => {
      const known = memoryContextOf(of).grinders.get(guest.id)!;
      const { adviceCase } = benchState(standingFacts(of.facts), known, recipe, of.house, Date.now(), foldOf(of));
      return advise(adviceCase).fit.line.response * windowMiddleS(recipe.timeS);
    };
    expect(sheet.secondsPerMark).toBeCloseTo(perMarkS(bar), 9);
    expect(perMarkS(await (await new TestClient(test).signIn('Noor')).bar())).toBeCloseTo(perMarkS(bar), 9);
    expect(knownOf(posterior(foldOf(bar), Date.now()), responseOf(guest.id))?.sd).toBeGreaterThan(0);
  });

  it('keeps a ladder of snapshots and not one for every day', async () => {
    const kept = await snapshots();
    expect(kept.length).toBeLessThan(20);
    const oldest = kept.at(-1)!.upTo.getTime();
    expect(Date.now() - oldest).toBeGreaterThan(28 * 86_400_000);
  });
});
