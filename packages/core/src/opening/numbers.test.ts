import { standingFacts } from '../facts/index.ts';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../numbers/index.ts';
import { learnedMinutes, minutesOf } from './jobMinutes.ts';
import { makePlan, quickEffort } from './makePlan.ts';
import { checkThermometer, stopSteamC } from './milkCheck.ts';
import { planProblem, withoutHands, type PlanInput } from './morningPlan.ts';
import { openingState } from './openingState.ts';
import { jobsOf } from './jobs.ts';
import { latestSwitchOnMin, readiness } from './readiness.ts';
import { checkScale } from './scaleCheck.ts';
import { after, glasshouse, glasshouseProblem, person, task } from './testMorning.ts';

describe('a known weight', () => {
  it.each([
    [200, 200, true],
    [200, 200.2, true],
    [200, 199.8, true],
    [200, 200.3, false],
    [500, 0, false],
  ])('%d g shown as %d g', (knownG, shownG, trusted) => {
    expect(checkScale(knownG, shownG).trusted).toBe(trusted);
  });
});

describe('a thermometer', () => {
  it.each([
    ['ice', 0.5, 0, 0, true],
    ['ice', -2, 0, 0, false],
    // 900 m up water boils at 100 - 900 / 300 = 97 degC.
    ['boiling', 97, 900, 97, true],
    ['boiling', 100, 900, 97, false],
  ] as const)('in %s showing %d at %d m', (held, showedC, altitudeM, shouldC, trusted) => {
    expect(checkThermometer(held, showedC, altitudeM)).toMatchObject({ shouldC, trusted, offC: showedC - shouldC });
  });

  it('that shows two degrees too many is stopped two degrees higher', () => {
    expect(stopSteamC(60, 200, 2) - stopSteamC(60, 200, 0)).toBe(2);
    expect(stopSteamC(60, 200, 0)).toBeGreaterThanOrEqual(50);
    expect(stopSteamC(60, 200, 0)).toBeLessThanOrEqual(55);
  });
});

describe('minutes', () => {
  it('lean on the house the more mornings there are', () => {
    const before = { meanMin: 2, sdMin: 0.5 };
    expect(learnedMinutes(before, [])).toEqual(before);
    // (3 x 2 + 3 x 4) / 6 = 3
    expect(learnedMinutes(before, [4, 4, 4]).meanMin).toBeCloseTo(3, 9);
    expect(
      learnedMinutes(
        before,
        Array.from({ length: 97 }, () => 4),
      ).meanMin,
    ).toBeCloseTo(3.94, 2);
  });

  it('leave out the morning when somebody went for milk', () => {
    expect(learnedMinutes({ meanMin: 2, sdMin: 0.5 }, [120, -3]).meanMin).toBe(2);
  });

  it('of a grinder are its expected shots times a round', () => {
    const two = minutesOf('dial', {}, { mean: 2, sd: 0 }, false);
    const four = minutesOf('dial', {}, { mean: 4, sd: 0 }, false);
    expect(four.meanMin).toBeCloseTo(2 * two.meanMin, 9);
    expect(minutesOf('dial', {}, { mean: 2, sd: 1 }, false).sdMin).toBeGreaterThan(two.sdMin);
    expect(minutesOf('rinse', {}, null, true).meanMin).toBeGreaterThan(minutesOf('rinse', {}, null, false).meanMin);
  });
});

describe('the chance to be ready', () => {
  const sure = { tasks: [task('a', 10)], people: [person('ana')] };
  const plan = makePlan(sure, null, quickEffort, seededRandom(1));
  it('is all or nothing where nothing varies', () => {
    expect(readiness(sure, plan, 10, 50, seededRandom(2)).chance).toBe(1);
    expect(readiness(sure, plan, 9.9, 50, seededRandom(2)).chance).toBe(0);
  });

  it('plays a morning with as many scales as the bar has', () => {
    const weighing = ['a', 'b'].map((key) => task(key, 10, { uses: ['scale'] }));
    const bar = (scale: number) => ({ tasks: weighing, people: [person('ana'), person('ben')], several: { scale } });
    const endsAt = (scale: number): number => {
      const both = makePlan(bar(scale), null, quickEffort, seededRandom(1));
      return readiness(bar(scale), both, 60, 50, seededRandom(2)).midMin;
    };
    expect([endsAt(1), endsAt(2)]).toEqual([20, 10]);
  });

  it('is about a half at the middle, and agrees with the sum of two by hand', () => {
    // Two in a row of 10 min, sd 1 each: the sum is 20 with sd sqrt 2.
    const chain = {
      tasks: [task('a', 10, { sdMinutes: 1 }), task('b', 10, { sdMinutes: 1, needs: after('a') })],
      people: [person('ana')],
    };
    const both = makePlan(chain, null, quickEffort, seededRandom(1));
    const found = readiness(chain, both, 20 + Math.SQRT2, 4_000, seededRandom(3));
    expect(found.chance).toBeCloseTo(0.841, 1);
    expect(found.midMin).toBeCloseTo(20, 0);
    expect(found.highMin - found.lowMin).toBeCloseTo(2 * 1.2816 * Math.SQRT2, 0);
  });

  it('gives the latest switch-on that still is sure enough', () => {
    const bar = glasshouseProblem([person('ines', { head: true }), person('noor')]);
    const found = makePlan(bar, null, quickEffort, seededRandom(1));
    const latest = latestSwitchOnMin(bar, found, found.endMin + 20, 0.9, 200, () => seededRandom(4));
    expect(latest).toBeGreaterThan(10);
    expect(latest).toBeLessThan(30);
    expect(latestSwitchOnMin(bar, found, found.endMin - 5, 0.9, 200, () => seededRandom(4))).toBeNull();
    expect(latestSwitchOnMin(sure, plan, 20, 0.9, 50, () => seededRandom(4))).toBeNull();
  });
});

describe('the morning as a problem', () => {
  const fromMs = Date.parse('2031-05-04T05:30:00Z');
  const input = (people: PlanInput['people'], onSinceMs = new Map<string, number>()): PlanInput => ({
    morning: {
      run: 'opening',
      grinderIds: null,
      fromMs,
      opensAtMs: fromMs + 120 * 60_000,
      detergent: false,
      people: people.map(({ id }, i) => ({ personId: id, fromMs: fromMs + i * 600_000 })),
    },
    jobs: openingState(jobsOf(glasshouse), standingFacts([]), fromMs),
    people,
    history: {},
    shots: new Map([['house', { mean: 5, sd: 1 }]]),
    warmUps: new Map([['fern', { meanMin: 25, sdMin: 3 }]]),
    onSinceMs,
    scales: 2,
    nowMs: fromMs,
  });
  const ines = { id: 'ines', role: 'head' as const };
  const minutes = (key: string, from: PlanInput) => planProblem(from).tasks.find((one) => one.key === key);

  it('gives a grinder that wants more shots more minutes, and a machine its lag', () => {
    const problem = input([ines]);
    expect(minutes('dial:house', problem)?.minutes).toBeGreaterThan(minutes('dial:guest', problem)?.minutes ?? 99);
    expect(minutes('hot:fern', problem)?.needs).toEqual([{ key: 'switchOn:fern', lagMin: 25, lagSdMin: 3 }]);
    expect(planProblem(problem).several).toEqual({ scale: 2 });
  });

  it('counts what is left of a warm-up that runs', () => {
    const onSince = new Map([['fern', fromMs - 10 * 60_000]]);
    expect(minutes('hot:fern', input([ines], onSince))?.fromMin).toBe(15);
  });

  it('names what nobody who is in may do', () => {
    expect(withoutHands(input([ines]))).toEqual([]);
    expect(withoutHands(input([{ id: 'noor', role: 'barista' }])).map(({ kind }) => kind)).toEqual(['signOff']);
    const trainee = withoutHands(input([{ id: 'pell', role: 'trainee' }])).map(({ kind }) => kind);
    expect(trainee).toContain('dial');
    expect(trainee).not.toContain('hopper');
  });
});
