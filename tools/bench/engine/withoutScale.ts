import { byEngine, drawStation, runMorning, withoutScale, type MorningResult } from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { mean, percentOf } from '../statistics.ts';

const MORNINGS = 1_500;
const FIRST_SEED = 30_001;

/** A house that owns no scale, all by level, glass and watch, beside the same mornings with one. */
export function measureWithoutScale(): Figure[] {
  const seeds = Array.from({ length: MORNINGS }, (_, i) => FIRST_SEED + i);
  const withOne = seeds.map((seed) => runMorning(drawStation(seed), byEngine));
  const without = seeds.map((seed) => runMorning(withoutScale(drawStation(seed), seed), byEngine));
  const locked = without.filter((morning) => morning.locked);
  const right = percentOf(locked, ({ trulyInside }) => trulyInside);
  const stated = 100 * mean(locked.map(({ statedChance }) => statedChance ?? 0));
  return [
    ...rowOf('with a scale', withOne),
    ...rowOf('level, glass and watch', without),
    { name: 'without a scale: stated chance less truly right', value: stated - right, unit: '%', aim: 'within 3' },
    {
      name: 'without a scale: not locked within 20 shots',
      value: percentOf(without, (morning) => !morning.locked),
      unit: '%',
      aim: '0',
    },
  ];
}

function rowOf(row: string, mornings: readonly MorningResult[]): Figure[] {
  const locked = mornings.filter((morning) => morning.locked);
  const cell = (column: string, value: number, unit = ''): Figure => ({
    name: `${row}: ${column}`,
    value,
    unit,
    cell: { table: 'without a scale', row, column },
  });
  return [
    cell('shots', mean(mornings.map(({ shots }) => shots))),
    cell(
      'right',
      percentOf(locked, ({ trulyInside }) => trulyInside),
      '%',
    ),
    cell('stated', 100 * mean(locked.map(({ statedChance }) => statedChance ?? 0)), '%'),
    cell(
      'bands',
      percentOf(
        mornings.flatMap(({ bandHits }) => bandHits),
        (hit) => hit,
      ),
      '%',
    ),
  ];
}
