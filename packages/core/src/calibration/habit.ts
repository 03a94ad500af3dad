import { hoursBetween, lnStudentT, MS_PER_HOUR } from '../numbers/index.ts';
import {
  addProcessNoise,
  beliefOf,
  covarianceOf,
  marginalWithout,
  meanOf,
  predict,
  redefined,
  update,
  withUnknowns,
  type Belief,
  type Row,
} from './belief.ts';
import { engineDefaults } from './engineDefaults.ts';
import { trendOver, wanderings } from './wanderings.ts';

/**
 * How a grinder usually goes through its day, learned from its days: the slope of ln T in each stretch of hours since it was first
 * heard that day, and how probable each belief of its wandering is.
 */
export interface Habit {
  /** Slopes, ln T per hour, and the mean ln T at the mark where the last shot was pulled. */
  readonly belief: Belief;
  /** When it was first heard today, ms since the epoch. */
  readonly beganAtMs: number;
  /** What was heard last; null after another coffee: its level says nothing of the next. */
  readonly last: HabitShot | null;
  /** Bags that went in since then, and variance that whatever else happened adds. */
  readonly bags: number;
  readonly jumped: number;
  /** One weight for each of `wanderings`; they sum to 1. */
  readonly weights: readonly number[];
  /** What the days before today have taught: today's own shots speak for themselves. */
  readonly before: { readonly slopes: readonly number[]; readonly weights: readonly number[] };
}

/** A sound shot, as far as habits go. */
export interface HabitShot {
  readonly atMs: number;
  readonly lnT: number;
  /** Marks finer than the reference. */
  readonly x: number;
  /** Variance of the shot itself. */
  readonly variance: number;
}

const LEVEL = 'level';
/** Hours since the day began at which one stretch ends and the next begins: the first hours are told apart, the afternoon less. */
const EDGES_H = [0, 1, 2, 3, 5, 7, 9, 12];
const stretches = EDGES_H.slice(1).map((to, i) => ({ name: `from ${EDGES_H[i] ?? 0}`, from: EDGES_H[i] ?? 0, to }));

/** A grinder of whose days nobody knows anything: slopes that are alike in neighbouring hours. */
const newBelief = (): Belief => {
  const { habitSd, trendLastsHours } = engineDefaults;
  const belief = beliefOf(stretches.map(({ name }) => ({ name, mean: 0, sd: habitSd })));
  const middle = (i: number): number => ((EDGES_H[i] ?? 0) + (EDGES_H[i + 1] ?? 0)) / 2;
  const covariance = belief.covariance.map((_, at) => {
    const [i, j] = [Math.floor(at / stretches.length), at % stretches.length];
    return habitSd ** 2 * Math.exp(-Math.abs(middle(i) - middle(j)) / trendLastsHours);
  });
  return { ...belief, covariance };
};

/** Hours of a stretch that lie between two moments of a day. */
function hoursIn(stretch: { from: number; to: number }, beganAtMs: number, fromMs: number, toMs: number): number {
  const from = Math.max(hoursBetween(beganAtMs, fromMs), stretch.from);
  return Math.max(0, Math.min(hoursBetween(beganAtMs, toMs), stretch.to) - from);
}

const rowBetween = (beganAtMs: number, fromMs: number, toMs: number): Row =>
  stretches.flatMap((stretch): [string, number][] => {
    const hours = hoursIn(stretch, beganAtMs, fromMs, toMs);
    return hours > 0 ? [[stretch.name, hours]] : [];
  });

const startsNewDay = (lastMs: number, atMs: number): boolean =>
  hoursBetween(lastMs, atMs) > engineDefaults.habitPauseHours;

/** By how much ln T usually changes between two moments of today, by the days before; what else it may do is said by how it wanders. */
export function usualShift({ before, beganAtMs, last }: Habit, fromMs: number, toMs: number): number {
  if (last !== null && startsNewDay(last.atMs, toMs)) return 0;
  return stretches.reduce(
    (sum, stretch, i) => sum + (before.slopes[i] ?? 0) * hoursIn(stretch, beganAtMs, fromMs, toMs),
    0,
  );
}

/** Parts of a day that people speak of, hours since it began. */
const SPANS_H = [
  { fromH: 0, toH: 3 },
  { fromH: 3, toH: 7 },
  { fromH: 7, toH: 12 },
];

/** By how much ln T usually changes in the first hours, about noon and later, by all its days, and the doubt of it (one sd). */
export const usualDay = ({ belief }: Habit): { fromH: number; toH: number; changeLn: number; sd: number }[] =>
  SPANS_H.map(({ fromH, toH }) => {
    const row = rowBetween(0, fromH * MS_PER_HOUR, toH * MS_PER_HOUR);
    return { fromH, toH, changeLn: meanOf(belief, row), sd: Math.sqrt(covarianceOf(belief, row, row)) };
  });

/** Another bag went in; another coffee begins a level of its own. */
export const habitAfterBag = (habit: Habit, isOtherCoffee: boolean): Habit =>
  isOtherCoffee ? { ...habit, last: null } : { ...habit, bags: habit.bags + 1 };

/** Something happened that makes the level less sure, by so much variance. */
export const habitAfterJump = (habit: Habit, variance: number): Habit => ({
  ...habit,
  jumped: habit.jumped + variance,
});

/**
 * The habit after one more sound shot.
 * @param before null: the first ever
 * @param response what a mark finer is worth, ln T, and its variance
 */
export function habitAfterShot(
  before: Habit | null,
  shot: HabitShot,
  response: { mean: number; variance: number },
): Habit {
  if (before === null)
    return freshDay(
      newBelief(),
      wanderings.map(({ chance }) => chance),
      shot,
    );
  const { last } = before;
  if (last && startsNewDay(last.atMs, shot.atMs))
    return freshDay(slopesOn(before.belief), wornOut(before.weights), shot);
  if (!last) return { ...before, belief: withLevel(before.belief, shot), last: shot, bags: 0, jumped: 0 };
  const row = rowBetween(before.beganAtMs, last.atMs, shot.atMs);
  const hours = hoursBetween(last.atMs, shot.atMs);
  const { takenUp } = trendOver(hours);
  const marks = shot.x - last.x;
  const turned = response.mean * marks;
  const added = before.jumped + response.variance * marks ** 2;
  const off = shot.lnT - last.lnT - turned - meanOf(before.belief, row);
  const known = last.variance + shot.variance + added + covarianceOf(before.belief, row, row);
  const weights = normalised(
    before.weights.map((weight, i) => {
      const { walkSd = 0, trendSd = 0, bagSd = 0 } = wanderings[i] ?? {};
      const variance = known + walkSd ** 2 * hours + (trendSd * takenUp) ** 2 + bagSd ** 2 * before.bags;
      return weight * Math.exp(PAIR_COUNTS * (lnStudentT(off / Math.sqrt(variance), DEGREES) - Math.log(variance) / 2));
    }),
  );
  const wandered = weights.reduce((sum, weight, i) => {
    const { walkSd = 0, bagSd = 0 } = wanderings[i] ?? {};
    return sum + weight * (walkSd ** 2 * hours + bagSd ** 2 * before.bags);
  }, added);
  const [first = [stretches[0]?.name ?? '', 0] as const, ...others] = row;
  const by = { other: first[0], factor: first[1], shift: turned };
  const moved = others.reduce(
    (belief, [other, factor]) => redefined(belief, LEVEL, { other, factor, shift: 0 }),
    redefined(before.belief, LEVEL, by),
  );
  const drifted = addProcessNoise(moved, [[LEVEL, wandered]]);
  const expected = predict(drifted, [[LEVEL, 1]]);
  const z2 = (shot.lnT - expected.mean) ** 2 / (expected.variance + shot.variance);
  const trust = Math.min(1, (DEGREES + 1) / (DEGREES + z2));
  return {
    ...before,
    belief: update(drifted, expected, shot.lnT, shot.variance / trust),
    weights,
    last: shot,
    bags: 0,
    jumped: 0,
  };
}

/** Degrees of freedom of a surprise; and, since a shot takes part in two differences, each of them counts for half. */
const DEGREES = 8;
const PAIR_COUNTS = 0.5;

const freshDay = (belief: Belief, weights: readonly number[], shot: HabitShot): Habit => ({
  belief: withLevel(belief, shot),
  beganAtMs: shot.atMs,
  last: shot,
  bags: 0,
  jumped: 0,
  weights,
  before: { slopes: stretches.map(({ name }) => meanOf(belief, [[name, 1]])), weights },
});

const withLevel = (belief: Belief, { lnT, variance }: HabitShot): Belief =>
  withUnknowns(marginalWithout(belief, [LEVEL]), [{ name: LEVEL, mean: lnT, sd: Math.sqrt(variance) }]);

/** Another day: habits change with the seasons. */
const slopesOn = (belief: Belief): Belief =>
  addProcessNoise(
    belief,
    stretches.map(({ name }) => [name, engineDefaults.habitSdPerRootDay ** 2] as const),
  );

const wornOut = (weights: readonly number[]): number[] =>
  normalised(
    weights.map(
      (weight, i) =>
        weight ** engineDefaults.habitKept * (wanderings[i]?.chance ?? 0) ** (1 - engineDefaults.habitKept),
    ),
  );

function normalised(weights: readonly number[]): number[] {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return weights.map((weight) => weight / total);
}
