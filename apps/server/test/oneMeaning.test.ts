import type { Bar } from '@tempera/contract/bar';
import type { CoffeeUse } from '@tempera/contract/coffee';
import type { RecordedEntry } from '@tempera/contract/journal';
import { grinderOf, targetOf } from '@tempera/contract/station';
import { checkDue, grinderState } from '@tempera/core/bar';
import { advise, benchState, shotMiss } from '@tempera/core/calibration';
import { gramsUsed } from '@tempera/core/coffee';
import { standingFacts, type StepBody } from '@tempera/core/facts';
import { grinderSigned, jobsOf, openingFromMs, openingState } from '@tempera/core/opening';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { factOf, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

/** One set of facts, and every screen's and answer's way to a number: they find the same. */
let test: TestServer;
let ines: TestClient;
let bar: Bar;
let siteId: string;
/** The morning began a moment ago: nothing was ground today before it. */
let fromMs: number;

beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
  bar = await ines.bar();
  siteId = bar.facts[0]!.siteId;
  fromMs = openingFromMs(standingFacts([...bar.facts, ...bar.steps]), Date.now())!;
});
afterAll(() => test.close());

const house = () => bar.grinders.find(({ name }) => name === 'House')!;
const post = async (fact: object): Promise<RecordedEntry> => {
  const answer = await ines.send<RecordedEntry>('POST', '/api/facts', fact);
  expect(answer.status).toBe(201);
  return answer.body;
};
const step = (body: StepBody) => ({
  id: uuidv7(),
  siteId,
  kind: 'step',
  at: new Date().toISOString(),
  grinderId: null,
  groupId: null,
  body,
});

describe('one set of facts', () => {
  it('has one number of grams: on the bench, the page to sign, the page of what calibrating took and in its export', async () => {
    const own = (kind: 'dose' | 'purge', body: never) => factOf(bar, siteId, kind, body);
    await post(
      step({
        step: 'doseTime',
        grinderId: house().id,
        way: 'timed',
        discardedG: 18,
        grindTimeS: 9,
        dosesG: [17.2, 18.1],
        holds: true,
      }),
    );
    await post(own('dose', { setting: 30, doseG: 18, grindTimeS: 9, measuredBy: 'scale' } as never));
    await post(factOf(bar, siteId, 'shot', shotBody(bar)));
    await post(own('dose', { setting: 30, doseG: 16.5, grindTimeS: 9, measuredBy: 'scale' } as never));
    await post(own('dose', { setting: 30, doseG: 18.2, grindTimeS: 9, measuredBy: 'scale' } as never));
    const wrong = await post(own('purge', { purgeG: 40 } as never));
    await post(own('purge', { purgeG: 12, into: 'kitchen' } as never));
    await post(own('purge', { purgeG: 7, into: 'chamber' } as never));
    await post(factOf(bar, siteId, 'correction', { factId: wrong.id, withdrawn: true, shot: null }));

    const now = await ines.bar();
    const facts = standingFacts([...now.facts, ...now.steps]);
    const expectedG = 18 + 17.2 + 18.1 + 18 + 16.5 + 18.2 + 12;
    const bench = gramsUsed(facts, { fromMs, grinderId: house().id }).totalG;
    const page = grinderSigned(house().id, facts, fromMs).used.totalG;
    const { body: use } = await ines.get<CoffeeUse>('/api/coffee/use');
    const today = use.days[0]!.day;
    const answered = use.days.find(({ day, grinderId }) => day === today && grinderId === house().id)!.calibrationG;
    const rows = (await ines.get<string>('/api/journal/grounds.csv')).body.trimEnd().split('\r\n').slice(1);
    const exported = rows
      .map((row) => row.split(','))
      .filter(([at, grinder, cause]) => Date.parse(at!) >= fromMs && grinder === 'House' && cause !== 'putBack')
      .reduce((sum, [, , , grams]) => sum + Number(grams), 0);
    for (const grams of [bench, page, answered, exported]) expect(grams).toBeCloseTo(expectedG, 6);
  });

  it('has one answer to what is due, on the plan of the bar, the bench and the run', async () => {
    const now = await ines.bar();
    const facts = standingFacts([...now.facts, ...now.steps]);
    const nowMs = Date.now();
    const jobs = jobsOf({
      machines: now.machines.map(({ id, groups }) => ({
        id,
        groups: groups.map((group) => ({ id: group.id, buttons: 0 })),
      })),
      grinders: now.grinders.map(({ id }) => ({ id, referenceGroupId: now.machines[0]!.groups[0]!.id })),
      milk: true,
      byVolume: false,
      upkeepDue: false,
      left: [],
      scale: true,
      provesDoses: false,
    });
    const states = openingState(jobs, facts, fromMs);
    for (const grinder of now.grinders) {
      const home = grinderState(facts, grinder, nowMs, { openingFromMs: fromMs });
      const { lastLock, newBagAtMs, aimChangedAtMs } = benchState(
        facts,
        grinderOf(grinder),
        targetOf(grinder.recipe),
        now.house,
        nowMs,
        null,
      );
      expect(checkDue(lastLock, { newBagAtMs, aimChangedAtMs, openingFromMs: fromMs })?.atMs ?? null).toBe(
        home.dueAtMs,
      );
      const dial = states.find(({ job }) => job.kind === 'dial' && job.stationId === grinder.id)!;
      expect(dial.standing === 'done').toBe(
        home.standing === 'held' ||
          (home.standing === 'due' && home.dueCause === 'clock' && Date.parse(lastLock!.at) >= fromMs),
      );
    }
  });

  it('has one number that says how far off a shot was', async () => {
    const now = await ines.bar();
    const recipe = targetOf(house().recipe);
    const shot = await post(
      factOf(now, siteId, 'shot', shotBody(now, { doseG: 18.2, yieldG: 39, timeS: 27, firstDropS: 6 })),
    );
    const facts = standingFacts([...now.facts, ...now.steps, shot]);
    const advice = advise(benchState(facts, grinderOf(house()), recipe, now.house, Date.now(), null).adviceCase);
    const slip = shotMiss((shot as { body: ReturnType<typeof shotBody> }).body, recipe);
    expect(advice.judgement).toMatchObject({ kind: 'sound', ...slip });
  });

  it('takes the newest lock, in whatever order facts were handed out', async () => {
    const now = await ines.bar();
    for (const { id, seedSetting } of now.grinders) {
      const shuffled = standingFacts(now.facts.toReversed());
      expect(grinderState(shuffled, { id, seedSetting }, Date.now()).lastLock?.id).toBe(
        grinderState(standingFacts(now.facts), { id, seedSetting }, Date.now()).lastLock?.id,
      );
    }
  });
});
