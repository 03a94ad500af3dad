import type { CaseShot } from '@tempera/core/calibration';
import {
  byEngine,
  byRuleOfThumb,
  drawStation,
  runMorning,
  serveDay,
  servedByEngine,
  servedByHand,
  type DayResult,
  type WayOfServing,
  type WayOfWorking,
} from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { mean, quantile } from '../statistics.ts';

const DAYS = 500;
const FIRST_SEED = 50_001;

/** A morning by one way of working, and the day that follows it by the same people. */
function liveDay(seed: number, dialling: WayOfWorking, serving: WayOfServing): DayResult {
  const station = drawStation(seed);
  let shots: readonly CaseShot[] = [];
  let doseG: number | null = null;
  const { setting } = runMorning(station, (input, its) => {
    const turn = dialling(input, its);
    shots = input.shots;
    doseG = turn.doseG;
    return turn;
  });
  return serveDay(station, [...shots], { setting, doseG }, serving);
}

/** Served days: a shot every 90 s for ten hours of drifting air, warm burrs and new bags. */
export function measureDays(): Figure[] {
  const days = (dialling: WayOfWorking, serving: WayOfServing): DayResult[] =>
    Array.from({ length: DAYS }, (_, i) => liveDay(FIRST_SEED + i, dialling, serving));
  const engine = days(byEngine, servedByEngine());
  const hand = days(byRuleOfThumb, servedByHand);
  const row = (name: string, results: readonly DayResult[]): Figure[] => {
    const cell = (column: string, value: number, unit = ''): Figure => ({
      name: `served day, ${name}: ${column}`,
      value,
      unit,
      cell: { table: 'served day', row: name, column },
    });
    return [
      cell('inside', 100 * mean(results.map(({ insideShare }) => insideShare)), '%'),
      cell('checks', mean(results.map(({ checks }) => checks))),
      cell(
        'p95',
        quantile(
          results.map(({ checks }) => checks),
          0.95,
        ),
      ),
      cell('moves', mean(results.map(({ moves }) => moves))),
    ];
  };
  return [
    ...row('engine', engine),
    ...row('a timed shot every 30 min', hand),
    {
      name: 'served day truly inside the window',
      value: 100 * mean(engine.map(({ insideShare }) => insideShare)),
      unit: '%',
      aim: 'at least 94',
    },
    { name: 'served day: timed shots', value: mean(engine.map(({ checks }) => checks)), unit: '', aim: 'at most 15' },
  ];
}
