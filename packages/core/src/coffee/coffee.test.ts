import { describe, expect, it } from 'vitest';
import { standingFacts } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { ageDays, freshnessOf, openedState, usualWindow } from './freshness.ts';
import { openHours } from './openHours.ts';
import { bagsInOrder, type StockBag } from './nextBag.ts';
import { runOut } from './stock.ts';
import { throughputByDay } from './throughput.ts';
import { gramsUsed } from './gramsUsed.ts';
import { calibrationByDay, useByDay } from './useByDay.ts';

const DAY = 86_400_000;
const HOUR = DAY / 24;
const now = Date.parse('2031-05-20T06:00:00Z');
const daysAgo = (days: number): number => now - days * DAY;

describe('how old a coffee is', () => {
  it.each([
    ['ten days on the shelf', daysAgo(10), [], 10],
    ['not roasted yet is no age', daysAgo(-1), [], 0],
    // 40 days, of which 30 frozen count 3 %: 10 + 0.9.
    ['still in the freezer', daysAgo(40), [{ fromMs: daysAgo(30), toMs: null }], 10.9],
    // 40 days, 20 of them frozen: 20 + 0.6, and a day and a half for the thaw.
    ['thawed ten days ago', daysAgo(40), [{ fromMs: daysAgo(30), toMs: daysAgo(10) }], 22.1],
    [
      'frozen twice',
      daysAgo(40),
      [
        { fromMs: daysAgo(38), toMs: daysAgo(28) },
        { fromMs: daysAgo(20), toMs: daysAgo(10) },
      ],
      23.6,
    ],
    ['to be frozen tomorrow', daysAgo(5), [{ fromMs: daysAgo(-1), toMs: null }], 5],
  ])('%s', (_name, roastedAtMs, freezes, expected) => {
    expect(ageDays({ roastedAtMs, freezes }, now)).toBeCloseTo(expected, 6);
  });
});

describe('how fresh it is', () => {
  const bag = (days: number) => ({ roastedAtMs: daysAgo(days), freezes: [] });
  it.each([
    [2, 'resting', 2],
    [4, 'prime', 10],
    [13, 'prime', 1],
    [14, 'fading', 14],
    [28, 'past', null],
  ] as const)('%i days after the roast: %s', (days, state, daysToNext) => {
    expect(freshnessOf(bag(days), usualWindow, now)).toMatchObject({ state, daysToNext });
  });

  it('stands still in the freezer', () => {
    const frozen = { roastedAtMs: daysAgo(90), freezes: [{ fromMs: daysAgo(80), toMs: null }] };
    expect(freshnessOf(frozen, usualWindow, now)).toMatchObject({ state: 'frozen', daysToNext: null });
  });

  it('goes by the day that is written, before its noon too', () => {
    const noon = now + 6 * HOUR;
    const inToday = { roastedAtMs: daysAgo(6), freezes: [{ fromMs: noon, toMs: null }] };
    expect(freshnessOf(inToday, usualWindow, now).state).toBe('frozen');
    const outToday = { roastedAtMs: daysAgo(40), freezes: [{ fromMs: daysAgo(36), toMs: noon }] };
    // Four days, 36 at 3 %, and the thaw.
    expect(freshnessOf(outToday, usualWindow, now)).toMatchObject({ state: 'prime', ageDays: expect.closeTo(6.58, 6) });
    const outTomorrow = { ...outToday, freezes: [{ fromMs: daysAgo(36), toMs: noon + DAY }] };
    expect(freshnessOf(outTomorrow, usualWindow, now).state).toBe('frozen');
  });

  it.each([
    [0, 'best'],
    [12, 'best'],
    [14, 'going'],
    [16.1, 'stale'],
  ])('open for %f h: %s', (hours, state) => {
    expect(openedState(hours)).toBe(state);
  });
});

describe('hours open', () => {
  // Monday's 13:00 to Tuesday's 07:00 at a café that works from 07:00 (filled from 06:00) to 19:00.
  const hours = { opensMin: 420, closesMin: 1_140 };
  const times = { timeZone: 'UTC', dayStartsMin: 240, ...hours, week: [], exceptions: [], shifts: [] };
  const at = (time: string): number => Date.parse(`2031-05-${time}:00Z`);

  it('count while the house is at work: a closed tub overnight does not age it', () => {
    expect(openHours(at('05T13:00'), at('06T07:00'), times)).toBe(6 + 1);
    expect(openHours(at('05T13:00'), at('06T07:00'), null)).toBe(18);
    expect(openHours(at('05T13:00'), at('05T13:30'), times)).toBe(0.5);
  });

  it('go on past midnight where the house does, and stand still in the freezer', () => {
    const late = { ...times, opensMin: 960, closesMin: 60 };
    expect(openHours(at('05T23:00'), at('06T02:00'), late)).toBe(2);
    const frozen = [{ fromMs: at('05T14:00'), toMs: at('05T18:00') }];
    expect(openHours(at('05T13:00'), at('05T19:00'), times, frozen)).toBe(2);
  });
});

describe('which bag next', () => {
  const bag = (id: string, days: number, change: Partial<StockBag> = {}): StockBag => ({
    id,
    roastedAtMs: daysAgo(days),
    freezes: [],
    window: usualWindow,
    openedAtMs: null,
    ...change,
  });
  const ids = (bags: StockBag[]): string[] => bagsInOrder(bags, now).map(({ bag: { id } }) => id);

  it('is the open one, then the first to fade, then what rests, what is past, and the freezer', () => {
    const frozen = bag('frozen', 60, { freezes: [{ fromMs: daysAgo(50), toMs: null }] });
    const open = bag('open', 6, { openedAtMs: daysAgo(0.2) });
    expect(ids([frozen, bag('past', 40), bag('young', 6), bag('old', 20), bag('resting', 1), open])).toEqual([
      'open',
      'old',
      'young',
      'resting',
      'past',
      'frozen',
    ]);
  });

  it('counts frozen time: an older roast may fade later', () => {
    const thawed = bag('thawed', 40, { freezes: [{ fromMs: daysAgo(36), toMs: daysAgo(1) }] });
    expect(ids([thawed, bag('shelf', 12)])).toEqual(['shelf', 'thawed']);
  });

  it('keeps one order among equals', () => {
    expect(ids([bag('b', 8), bag('a', 8)])).toEqual(['a', 'b']);
    expect(ids([])).toEqual([]);
  });
});

describe('how long the stock lasts', () => {
  it('is stock over the mean day, with doubt that grows with the days', () => {
    // Mean 1,000 g, sd 100 g; 4,000 g: sd of the days = sqrt(4 * 0.01 + 16 * 0.01 / 3) = 0.306.
    const lasts = runOut(4_000, [900, 1_000, 1_100]);
    expect(lasts?.days).toBe(4);
    expect((lasts?.highDays ?? 0) - 4).toBeCloseTo(1.2816 * 0.3055, 3);
    expect(runOut(4_000, [1_000, 1_000])).toEqual({ days: 4, lowDays: 4, highDays: 4 });
  });

  it('is not known without two days of use', () => {
    expect(runOut(4_000, [1_000])).toBeNull();
    expect(runOut(4_000, [0, 0])).toBeNull();
    expect(runOut(0, [1_000, 1_200])?.days).toBe(0);
  });
});

describe('what went through a hopper', () => {
  const day = (n: number) => ({ day: `2031-05-0${n}`, fromMs: n * DAY + 8 * HOUR, toMs: n * DAY + 18 * HOUR });
  const days = [day(1), day(2), day(3)];
  const bag = (n: number, hour: number, weightG = 1_000) => ({ grinderId: 'a', atMs: n * DAY + hour * HOUR, weightG });

  it('is the bag before, spread over the open hours until the next went in', () => {
    // The first bag lasts from 8 on day 1 to 13 on day 2: 15 open hours, 10 of them on day 1.
    const use = throughputByDay([bag(1, 8, 1_500), bag(2, 13, 1_500)], days);
    expect(use.find((entry) => entry.day === '2031-05-01')?.grams).toBeCloseTo(1_000, 6);
    // Day 2: 500 g of the first, then 5 h of the second at the same pace.
    expect(use.find((entry) => entry.day === '2031-05-02')?.grams).toBeCloseTo(1_000, 6);
  });

  it('never takes more from a bag than it held', () => {
    const use = throughputByDay([bag(1, 8, 3_000), bag(1, 18, 100)], days);
    const total = use.reduce((sum, { grams }) => sum + grams, 0);
    expect(total).toBeCloseTo(3_100, 6);
  });

  it('says nothing of a first bag, or of bags that never saw an open hour', () => {
    expect(throughputByDay([bag(1, 8)], days)).toEqual([]);
    expect(throughputByDay([], days)).toEqual([]);
  });
});

describe('calibration against served', () => {
  const make = factMaker('2031-05-04T06:00:00Z');
  const dayOf = (): string => '2031-05-04';

  it('counts every gram once, with where it went', () => {
    const step = stepMaker('2031-05-04T06:00:00Z');
    const doseTime = {
      step: 'doseTime' as const,
      grinderId: 'grinder',
      way: 'timed' as const,
      grindTimeS: 9,
      holds: true,
    };
    const facts = standingFacts([
      step({ ...doseTime, discardedG: 18, dosesG: [17.5, 18] }, 0),
      make('dose', { doseG: 18 }, 1),
      make('shot', { doseG: 18 }, 2),
      make('dose', { doseG: 16 }, 3),
      make('dose', { doseG: 18.2 }, 4),
      make('shot', { doseG: 18.2 }, 5),
      make('shot', { doseG: 17 }, 6),
      make('purge', { purgeG: 10 }, 7),
      make('purge', { purgeG: 8, into: 'kitchen' }, 8),
      make('purge', { purgeG: 5, into: 'chamber' }, 9),
      make('purge', { purgeG: 200, why: 'burrs' }, 10),
      make('dose', { doseG: 18 }, 11),
    ]);
    const { totalG, byCause } = gramsUsed(facts);
    expect(byCause).toEqual({
      poured: 18 + 18.2 + 17 + 18,
      thrownAway: 18 + 17.5 + 18 + 16,
      purged: 10,
      kitchen: 8,
      burrs: 200,
      putBack: 5,
    });
    expect(totalG).toBeCloseTo(71.2 + 69.5 + 10 + 8 + 200, 9);
    expect(calibrationByDay(facts, dayOf)).toEqual([{ day: '2031-05-04', grinderId: 'grinder', grams: totalG }]);
  });

  it('counts a span, though what a dose was weighed for is told after or before it', () => {
    const facts = standingFacts([make('dose', { doseG: 18 }, 1), make('shot', { doseG: 18 }, 3), make('purge', {}, 4)]);
    const fromMs = Date.parse('2031-05-04T06:02:00Z');
    expect(gramsUsed(facts, { fromMs }).byCause.poured).toBe(0);
    expect(gramsUsed(facts, { grinderId: 'another' }).totalG).toBe(0);
  });

  it('leaves out what was withdrawn', () => {
    const purge = make('purge', { purgeG: 10 }, 1);
    const correction = make('correction', { factId: purge.id, withdrawn: true, shot: null }, 2);
    expect(calibrationByDay(standingFacts([purge, correction]), dayOf)).toEqual([]);
  });

  it('is what went through less what calibrating took; unknown where no bag tells', () => {
    const calibration = [
      { day: '2031-05-03', grinderId: 'a', grams: 80 },
      { day: '2031-05-04', grinderId: 'a', grams: 100 },
      { day: '2031-05-04', grinderId: 'b', grams: 50 },
    ];
    const through = [
      { day: '2031-05-04', grinderId: 'a', grams: 1_100 },
      { day: '2031-05-03', grinderId: 'a', grams: 60 },
    ];
    expect(useByDay(calibration, through)).toEqual([
      { day: '2031-05-04', grinderId: 'a', calibrationG: 100, servedG: 1_000 },
      { day: '2031-05-04', grinderId: 'b', calibrationG: 50, servedG: null },
      { day: '2031-05-03', grinderId: 'a', calibrationG: 80, servedG: 0 },
    ]);
  });
});
