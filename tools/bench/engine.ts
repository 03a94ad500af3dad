import {
  byAllKnowing,
  byEngine,
  byMeanOfThree,
  byRuleOfThumb,
  drawStation,
  runMorning,
  type MorningResult,
  type WayOfWorking,
} from '@tempera/core/practice';
import type { Figure } from './figure.ts';
import { quantile } from './statistics.ts';

const MORNINGS = 2_000;
const FIRST_SEED = 1;
const SHOT_MIN = 1.2;
const MOVE_MIN = 0.6;
const PERCENT = 100;

const ways: Record<string, WayOfWorking> = {
  engine: byEngine,
  'rule of thumb, two repeats': byRuleOfThumb,
  'mean of three': byMeanOfThree,
  'all-knowing bound': byAllKnowing,
};

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Closed loop on the simulated bar: the engine beside the ways people work, on the same mornings. */
export function measureEngine(): Figure[] {
  const results = Object.entries(ways).map(([name, way]) => {
    const mornings = Array.from({ length: MORNINGS }, (_, i) => runMorning(drawStation(FIRST_SEED + i), way));
    return { name, mornings };
  });
  const [engine, thumb] = results;
  if (!engine || !thumb) return [];
  const relative = (of: (morning: MorningResult) => number): number =>
    mean(engine.mornings.map(of)) / mean(thumb.mornings.map(of));
  return [
    ...results.flatMap(({ name, mornings }) => figuresOf(name, mornings)),
    {
      name: 'engine: shots relative to the rule of thumb',
      value: relative(({ shots }) => shots),
      unit: '',
      aim: 'at most 0.47',
    },
    {
      name: 'engine: grams relative to the rule of thumb',
      value: relative(({ grams }) => grams),
      unit: '',
      aim: 'at most 0.42',
    },
  ];
}

function figuresOf(name: string, mornings: readonly MorningResult[]): Figure[] {
  const shots = mornings.map((morning) => morning.shots);
  const locked = mornings.filter((morning) => morning.locked);
  return [
    { name: `${name}: shots, mean`, value: mean(shots), unit: '' },
    { name: `${name}: shots, p95`, value: quantile(shots, 0.95), unit: '' },
    { name: `${name}: grams, mean`, value: mean(mornings.map(({ grams }) => grams)), unit: 'g' },
    {
      name: `${name}: minutes, mean`,
      value: mean(mornings.map((m) => m.shots * SHOT_MIN + m.moves * MOVE_MIN)),
      unit: 'min',
    },
    {
      name: `${name}: truly inside after lock`,
      value: PERCENT * mean(locked.map((m) => Number(m.trulyInside))),
      unit: '%',
    },
    { name: `${name}: locked within 20 shots`, value: (PERCENT * locked.length) / mornings.length, unit: '%' },
  ];
}
