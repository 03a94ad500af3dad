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
import type { Figure } from '../figure.ts';
import { mean, percentOf, quantile } from '../statistics.ts';

const MORNINGS = 8_000;
const FIRST_SEED = 1;
const SHOT_MIN = 1.2;
const MOVE_MIN = 0.6;

const ways: Record<string, WayOfWorking> = {
  engine: byEngine,
  'rule of thumb, two repeats': byRuleOfThumb,
  'mean of three': byMeanOfThree,
  'all-knowing bound': byAllKnowing,
};

/** Fewer locks of a kind than this tell no chance of it. */
const STRATUM = 400;

/** Kinds of locks whose stated chance must be right by itself. */
const strata: Record<string, (morning: MorningResult) => boolean> = {
  'first shot': ({ shots }) => shots === 1,
  trimmed: ({ trimmed }) => trimmed,
  stepped: ({ stepped }) => stepped,
  stepless: ({ stepped }) => !stepped,
};

const overstated = (mornings: readonly MorningResult[]): number =>
  100 * mean(mornings.map(({ statedChance }) => statedChance ?? 0)) -
  percentOf(mornings, ({ trulyInside }) => trulyInside);

/** Mornings at one grinder until it locks. */
export function measureMornings(): Figure[] {
  const results = new Map(
    Object.entries(ways).map(([name, way]) => [
      name,
      Array.from({ length: MORNINGS }, (_, i) => runMorning(drawStation(FIRST_SEED + i), way)),
    ]),
  );
  const engine = results.get('engine') ?? [];
  const thumb = results.get('rule of thumb, two repeats') ?? [];
  const relative = (of: (morning: MorningResult) => number): number => mean(engine.map(of)) / mean(thumb.map(of));
  const locked = engine.filter((morning) => morning.locked);
  const inside = percentOf(locked, ({ trulyInside }) => trulyInside);
  const insideByThumb = percentOf(
    thumb.filter((morning) => morning.locked),
    ({ trulyInside }) => trulyInside,
  );
  const stated = 100 * mean(locked.map(({ statedChance }) => statedChance ?? 0));
  const bands = engine.flatMap(({ bandHits }) => bandHits);
  return [
    ...[...results].flatMap(([name, mornings]) => tableRow(name, mornings)),
    { name: 'shots relative to the rule of thumb', value: relative((m) => m.shots), unit: '', aim: 'at most 0.54' },
    { name: 'grams relative to the rule of thumb', value: relative((m) => m.grams), unit: '', aim: 'at most 0.47' },
    { name: 'truly inside after lock', value: inside, unit: '%', aim: 'at least 97' },
    { name: 'truly inside, above the rule of thumb by', value: inside - insideByThumb, unit: '%', aim: 'above 0' },
    { name: 'not locked within 20 shots', value: percentOf(engine, (m) => !m.locked), unit: '%', aim: '0' },
    { name: 'stated chance at lock, mean', value: stated, unit: '%' },
    { name: 'stated chance less truly inside', value: stated - inside, unit: '%', aim: 'within 1.5' },
    ...Object.entries(strata).map(([name, isOf]): Figure => {
      const of = locked.filter(isOf);
      return {
        name: `stated less true, ${name} (${of.length} locks)`,
        value: overstated(of),
        unit: '%',
        ...(of.length >= STRATUM ? { aim: 'within 3' } : {}),
      };
    }),
    { name: '80 % bands that held the next shot', value: percentOf(bands, (hit) => hit), unit: '%', aim: '75-85' },
  ];
}

function tableRow(row: string, mornings: readonly MorningResult[]): Figure[] {
  const shots = mornings.map((morning) => morning.shots);
  const locked = mornings.filter((morning) => morning.locked);
  const cell = (column: string, value: number, unit = ''): Figure => ({
    name: `${row}: ${column}`,
    value,
    unit,
    cell: { table: 'mornings', row, column },
  });
  return [
    cell('shots', mean(shots)),
    cell('p95', quantile(shots, 0.95)),
    cell('grams', mean(mornings.map(({ grams }) => grams))),
    cell('minutes', mean(mornings.map((m) => m.shots * SHOT_MIN + m.moves * MOVE_MIN))),
    cell(
      'right',
      percentOf(locked, ({ trulyInside }) => trulyInside),
      '%',
    ),
    cell('locked', (100 * locked.length) / mornings.length, '%'),
  ];
}
