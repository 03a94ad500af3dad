import { describe, expect, it } from 'vitest';
import { aCase } from '../calibration/testCases.ts';
import { standingFacts } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { gaussian, seededRandom } from '../numbers/index.ts';
import { summariseDays } from './daySummary.ts';
import { ewma } from './controlChart.ts';
import { grinderHistory } from './grinderHistory.ts';
import { splitVariance, type SplitShot } from './varianceSplit.ts';

describe('the moving average of a control chart', () => {
  it('weighs the newest by a fifth, within limits that widen to their own', () => {
    // By hand: 0.2 * 1 = 0.2; 0.2 * 1 + 0.8 * 0.2 = 0.36. Limits 3 sqrt(0.2/1.8 (1 - 0.8^2)) = 0.6; then 3 sqrt(1/9 * 0.5904) = 0.768.
    const [first, second] = ewma([1, 1], 0, 1);
    expect(first?.value).toBeCloseTo(0.2);
    expect(first?.high).toBeCloseTo(0.6);
    expect(second?.value).toBeCloseTo(0.36);
    expect(second?.high).toBeCloseTo(0.7684, 3);
    expect(
      ewma(
        Array.from({ length: 100 }, () => 0),
        0,
        1,
      ).at(-1)?.high,
    ).toBeCloseTo(1);
  });
});

describe('where the spread comes from', () => {
  const vague = { stretch: 0.001, hands: 0.001, shot: 0.001 };

  it('gives the one-way analysis of variance where there is one balanced factor', () => {
    const random = seededRandom(3);
    const shots: SplitShot[] = Array.from({ length: 60 }, (_, s) => {
      const off = 0.05 * gaussian(random);
      return Array.from({ length: 5 }, () => ({ ln: off + 0.03 * gaussian(random), stretch: `${s}`, personId: 'one' }));
    }).flat();
    // By hand: within = mean of the stretches' variances; between = variance of their means less within / 5.
    const groups = Array.from({ length: 60 }, (_, s) => shots.slice(5 * s, 5 * s + 5).map(({ ln }) => ln));
    const mean = (of: number[]) => of.reduce((a, b) => a + b, 0) / of.length;
    const within = mean(groups.map((g) => g.reduce((a, x) => a + (x - mean(g)) ** 2, 0) / 4));
    const means = groups.map(mean);
    const between = means.reduce((a, x) => a + (x - mean(means)) ** 2, 0) / 59 - within / 5;
    const split = splitVariance(shots, { stretch: 0.05, hands: 0.001, shot: 0.03 }, vague)!;
    expect(split.shotSd).toBeCloseTo(Math.sqrt(within), 3);
    expect(split.stretchSd).toBeCloseTo(Math.sqrt(between), 2);
  });

  it('tells whose hands are slower, with its doubt, and claims little of few shots', () => {
    const random = seededRandom(5);
    const shots = (n: number): SplitShot[] =>
      Array.from({ length: n }, (_, i) => {
        const personId = ['a', 'b', 'c'][i % 3]!;
        const off = personId === 'b' ? 0.06 : 0;
        return { ln: off + 0.04 * gaussian(random), stretch: `${Math.floor(i / 9)}`, personId };
      });
    const many = splitVariance(shots(180))!.hands.find(({ personId }) => personId === 'b')!;
    expect(many.offLn).toBeGreaterThan(0.025);
    expect(many.offLn / many.sdLn).toBeGreaterThan(2);
    const few = splitVariance(shots(6))!.hands.find(({ personId }) => personId === 'b')!;
    expect(Math.abs(few.offLn)).toBeLessThan(0.03);
    expect(few.sdLn).toBeGreaterThan(many.sdLn);
    expect(splitVariance(shots(2))).toBeNull();
  });
});

describe('a grinder over time', () => {
  it('has its sound shots, what happened between them, and what share of the timed ones was inside', () => {
    const make = factMaker();
    const step = stepMaker();
    const timed = (timeS: number, minute: number, flaw: 'channel' | null = null) =>
      make('shot', { timeS, check: true, service: true, flaw }, minute);
    const facts = standingFacts([
      make('shot', { timeS: 27 }, 1),
      make('lock', {}, 2),
      timed(28, 60),
      step({ step: 'happened', what: 'doors', grinderId: null }, 70),
      step({ step: 'happened', what: 'refill', grinderId: 'another' }, 71),
      timed(31, 90),
      timed(19, 95, 'channel'),
      make('collarMove', { from: 30, to: 31, advisedTo: 31, service: true }, 96),
      make('newBag', {}, 99),
    ]);
    const { recipe } = aCase();
    const history = grinderHistory(
      facts,
      'grinder',
      () => recipe,
      () => '2031-05-04',
    );
    expect(history.capability).toEqual({ inside: 1, of: 2 });
    expect(history.shots.map(({ service, inside }) => [service, inside])).toEqual([
      [false, true],
      [true, true],
      [true, false],
    ]);
    expect(history.marks.map(({ what }) => what)).toEqual(['doors', 'move', 'bag']);
    expect(history.split).toBeNull();
  });

  it('holds each weighed dose against the nearest of the recipes that were locked', () => {
    const make = factMaker();
    const { recipe } = aCase();
    const recipes = new Map([
      ['double', { ...recipe, doseG: 18, doseToleranceG: 0.2 }],
      ['single', { ...recipe, doseG: 9, doseToleranceG: null }],
    ]);
    const facts = standingFacts([
      make('dose', { doseG: 17.5 }, 1),
      make('shot', { recipeVersionId: 'double' }, 2),
      make('lock', { recipeVersionId: 'double', otherDoses: [{ recipeVersionId: 'single', doseTimeS: 5 }] }, 3),
      make('dose', { doseG: 9.3 }, 4),
      make('dose', { doseG: 18.2 }, 5),
      make('dose', { doseG: 17, way: 'levelled' }, 6),
    ]);
    const { doses } = grinderHistory(
      facts,
      'grinder',
      (id) => recipes.get(id) ?? null,
      () => '2031-05-04',
    );
    // The usual tolerance is 0.3 g; the levelled one was on no scale.
    expect(doses.map(({ doseG, aimG, inside }) => [doseG, aimG, inside])).toEqual([
      [17.5, 18, false],
      [9.3, 9, true],
      [18.2, 18, true],
    ]);
  });
});

describe('a day in numbers', () => {
  const dayOf = (atMs: number): string => new Date(atMs).toISOString().slice(0, 10);
  const { recipe } = aCase();
  const DAY_MIN = 24 * 60;

  it('goes by the timed shots, and by all of them where none was timed', () => {
    const make = factMaker();
    const facts = standingFacts([
      make('shot', { timeS: 40 }, 1),
      make('shot', { timeS: 30, check: true, service: true }, 2),
      make('shot', { timeS: 27, check: true, service: true }, 3),
      make('collarMove', {}, 4),
      make('newBag', {}, 5),
      make('dose', { doseG: 18.4 }, 6),
      make('shot', { timeS: 27 }, DAY_MIN),
    ]);
    const history = grinderHistory(facts, 'grinder', () => ({ ...recipe, timeS: { min: 25, max: 28 } }), dayOf);
    const [first, second] = summariseDays(history, dayOf);
    // By hand: ln(30/27) = 0.1054, against the middle of 25..28 that is whatever both share; sd = 0.1054 / sqrt 2 = 0.0745.
    expect(first).toMatchObject({ day: '2031-05-04', shots: 3, timed: 2, inside: 1, moves: 1, bags: 1, doses: 1 });
    expect(first?.sdLn).toBeCloseTo(0.0745, 3);
    expect(first?.meanLn).toBeCloseTo(Math.log(Math.sqrt(30 * 27) / 26.46), 2);
    expect(first?.doseOffG).toBeCloseTo(0.4);
    expect(second).toMatchObject({
      day: '2031-05-05',
      shots: 1,
      timed: 0,
      inside: 0,
      sdLn: null,
      doses: 0,
      doseOffG: null,
    });
    expect(second?.meanLn).not.toBeNull();
  });
});
