import type { CaseShot } from '@tempera/core/calibration';
import {
  byEngine,
  byRuleOfThumb,
  drawStation,
  runMorning,
  serveDay,
  serveDays,
  servedByAllKnowing,
  servedByEngine,
  hardDay,
  servedByHand,
  servedByOneState,
  usualDay,
  type DayKind,
  type DayResult,
  type WayOfServing,
  type WayOfWorking,
} from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { mean, quantile } from '../statistics.ts';

const DAYS = 500;
const FIRST_SEED = 50_001;

/** A morning by one way of working, and the day that follows it by the same people. */
function liveDay(seed: number, dialling: WayOfWorking, serving: WayOfServing, kind: DayKind): DayResult {
  const station = drawStation(seed);
  let shots: readonly CaseShot[] = [];
  let doseG: number | null = null;
  const { setting } = runMorning(station, (input, its) => {
    const turn = dialling(input, its);
    shots = input.shots;
    doseG = turn.doseG;
    return turn;
  });
  return serveDay(station, [...shots], { setting, doseG }, serving, kind);
}

/** How often the plain filter is asked, so that it looks about so often in ten hours. */
const ONE_STATE_EVERY_MIN = [30, 39, 52, 70];

interface Kept {
  inside: number;
  checks: number;
}

/** Served days: a shot every 90 s for ten hours of drifting air, warm burrs and new bags; usual ones, and hard ones. */
export function measureDays(): Figure[] {
  const days = (dialling: WayOfWorking, serving: WayOfServing, kind: DayKind): DayResult[] =>
    Array.from({ length: DAYS }, (_, i) => liveDay(FIRST_SEED + i, dialling, serving, kind));
  const row = (table: string, name: string, results: readonly DayResult[]): { kept: Kept; cells: Figure[] } => {
    const checks = results.map((one) => one.checks);
    const kept = { inside: 100 * mean(results.map(({ insideShare }) => insideShare)), checks: mean(checks) };
    const cell = (column: string, value: number, unit = ''): Figure => ({
      name: `${table}, ${name}: ${column}`,
      value,
      unit,
      cell: { table, row: name, column },
    });
    const cells = [
      cell('inside', kept.inside, '%'),
      cell('checks', kept.checks),
      cell('p95', quantile(checks, 0.95)),
      cell('moves', mean(results.map(({ moves }) => moves))),
    ];
    return { kept, cells };
  };
  const measured = ([table, kind]: [string, DayKind]) => {
    const engine = row(table, 'engine', days(byEngine, servedByEngine(), kind));
    const hand = row(table, 'a timed shot every 30 min', days(byRuleOfThumb, servedByHand, kind));
    const plain = ONE_STATE_EVERY_MIN.map((min) =>
      row(table, `one state, every ${min} min`, days(byEngine, servedByOneState(min), kind)),
    );
    const bound = row(table, 'all-knowing, every 45 min', days(byEngine, servedByAllKnowing(45), kind));
    return { engine: engine.kept, cells: [engine, hand, ...plain, bound].flatMap(({ cells }) => cells) };
  };
  const usual = measured(['served day', usualDay]);
  const hard = measured(['hard day', hardDay]);
  return [
    ...usual.cells,
    ...hard.cells,
    ...measureWeeks(),
    { name: 'served day truly inside the window', value: usual.engine.inside, unit: '%', aim: 'at least 98' },
    { name: 'served day: timed shots', value: usual.engine.checks, unit: '', aim: 'at most 11' },
    { name: 'hard day truly inside the window', value: hard.engine.inside, unit: '%', aim: 'at least 95' },
    { name: 'hard day: timed shots', value: hard.engine.checks, unit: '', aim: 'at most 15' },
  ];
}

const HOUSES = 24;
const FIRST_HOUSE = 70_001;
const DAYS_A_WEEK = 7;
const WEEKS = 4;
/** Prices of a look, cups outside: what a house pays decides how often it looks. */
const PRICES = [7, 14];

/** Houses whose days are alike: how many looks their fourth week needs for the share inside of their first. */
function measureWeeks(): Figure[] {
  const weekOf = (results: readonly DayResult[], week: number): DayResult[] =>
    results.slice(DAYS_A_WEEK * week, DAYS_A_WEEK * (week + 1));
  const keptOf = (results: readonly DayResult[]): Kept => ({
    inside: 100 * mean(results.map(({ insideShare }) => insideShare)),
    checks: mean(results.map(({ checks }) => checks)),
  });
  const houses = PRICES.map((price) =>
    Array.from({ length: HOUSES }, (_, i) => serveDays(FIRST_HOUSE + i, WEEKS * DAYS_A_WEEK, price)),
  );
  const kept = (week: number): Kept[] => houses.map((all) => keptOf(all.flatMap((days) => weekOf(days, week))));
  const [first, last] = [kept(0), kept(WEEKS - 1)];
  const usual = first[0] ?? { inside: 0, checks: 0 };
  const cell = (row: string, column: string, value: number, unit = ''): Figure => ({
    name: `days that are alike, ${row}: ${column}`,
    value,
    unit,
    cell: { table: 'days that are alike', row, column },
  });
  return [
    ...PRICES.flatMap((price, i) =>
      [['first', first[i]] as const, ['fourth', last[i]] as const].flatMap(([week, one]) => [
        cell(`${week} week, a look at ${price} cups`, 'inside', one?.inside ?? 0, '%'),
        cell(`${week} week, a look at ${price} cups`, 'checks', one?.checks ?? 0),
      ]),
    ),
    {
      name: "checks of the fourth week at the first's share inside",
      value: checksAt(last, usual.inside) / usual.checks,
      unit: '',
      aim: 'at most 0.8',
    },
  ];
}

/** Looks that keep so much inside, straight between the two prices that keep more and less; the fewest that were tried where all keep more. */
function checksAt(kept: readonly Kept[], inside: number): number {
  const sorted = kept.toSorted((a, b) => a.checks - b.checks);
  const at = sorted.findIndex((one) => one.inside >= inside);
  const [less, more] = [sorted[at - 1], sorted[at]];
  if (!more) return Infinity;
  if (!less) return more.checks;
  const share = (inside - less.inside) / (more.inside - less.inside);
  return less.checks + share * (more.checks - less.checks);
}
