import {
  beliefOf,
  predict,
  updateWithLowerBound,
  update,
  holds,
  marginalOf,
  meanOf,
  unknownIn,
  marginalWithout,
  addProcessNoise,
  withUnknowns,
  type Belief,
  type Row,
  type Unknown,
} from './belief.ts';
import type { Measured } from '../facts/index.ts';
import { engineDefaults } from './engineDefaults.ts';
import { varianceOfWays, waysAfter, type WaysHeard } from './measuring.ts';
import {
  usualNoise,
  varianceOfHands,
  weightOf,
  withHandsMiss,
  withMiss,
  type Hands,
  type ShotNoise,
} from './shotNoise.ts';

/**
 * One linear-Gaussian model of the whole bar (design 3.2). A shot of grinder g through group h, x marks finer than the
 * grinder's reference, with D grams, coffee of age a and air of humidity u:
 *
 *   ln t_y = level_g + response_g x + group_h + recipe_r + gamma ln(D / D_recipe) + age a + humidity u + e
 *
 * Levels and responses are one pair a grinder-and-coffee; groups are shrunk to zero; slopes are shared by the bar.
 */
export interface BarModel {
  readonly belief: Belief;
  /** Between shots of one setting, whoever pulls them. */
  readonly noise: ShotNoise;
  /** What is known of each person's hands, by who they are; absent: nothing yet. */
  readonly hands?: Readonly<Record<string, Hands>>;
  /** What the house's shots have said of its ways of measuring; absent: nothing yet. */
  readonly ways?: WaysHeard;
}

/** How the surroundings differ from those at which the bar is right: days of age, points of relative humidity. */
interface Surroundings {
  ageDays: number;
  humidityPct: number;
}

/** One shot as the bar model hears it. */
export interface BarShot {
  grinder: string;
  /** Which coffee, where the bar knows the grinder with more than one; absent: its first. */
  coffee?: string | null;
  /** Null: nobody said; taken as a group without effect. */
  group: string | null;
  /** Who pulled it; absent or null: nobody said. */
  by?: string | null;
  /** Mean of marks finer than the reference over the dose: a blend when the purge was not done. */
  x: number;
  /** ln of the seconds at the recipe's yield; of a choked shot the bound that it exceeds. */
  lnTimeS: number;
  /** ln(D / D_recipe) */
  lnDose: number;
  /** Variance that corrections and blends add to the shot's own. */
  addedVariance: number;
  choked: boolean;
  /** How its numbers are known; absent: on the scale. */
  measured?: Measured | undefined;
  /** Which recipe, where it is not the one that the level stands for. */
  recipe?: string;
  surroundings?: Surroundings;
}

/** The level of a grinder with a coffee; what a mark is worth is the grinder's, whatever is in its hopper. */
export const levelOf = (grinder: string, coffee: string | null = null): string =>
  coffee === null ? `level ${grinder}` : `level ${grinder} ${coffee}`;
export const responseOf = (grinder: string): string => `response ${grinder}`;
export const groupOf = (group: string): string => `group ${group}`;
/** What another recipe of the same coffee adds: a single's bed is not a short double. */
export const recipeOf = (recipeId: string): string => `recipe ${recipeId}`;
export const DOSE = 'dose';
const AGE = 'age';
const HUMIDITY = 'humidity';

/** A bar of which nothing is known yet but the shared slopes. */
export function newBar(): BarModel {
  const d = engineDefaults;
  return {
    belief: beliefOf([{ name: DOSE, mean: d.doseExponent, sd: d.doseExponentSd }]),
    noise: usualNoise,
  };
}

/** Adds the slopes of age and humidity, for bars that are told of them. */
function withSlopes(bar: BarModel): BarModel {
  const d = engineDefaults;
  return withNew(bar, [
    { name: AGE, mean: d.agePerDay, sd: d.agePerDaySd },
    { name: HUMIDITY, mean: d.humidityPerPoint, sd: d.humidityPerPointSd },
  ]);
}

export interface GrinderPrior {
  level: number;
  levelSd: number;
  response: number;
  responseSd: number;
}

/** Adds a grinder with a coffee, as far as the bar does not know them. */
export function withGrinder(
  bar: BarModel,
  grinder: string,
  prior: GrinderPrior,
  coffee: string | null = null,
): BarModel {
  return withNew(bar, [
    { name: levelOf(grinder, coffee), mean: prior.level, sd: prior.levelSd },
    { name: responseOf(grinder), mean: prior.response, sd: prior.responseSd },
  ]);
}

/** Adds a group head, unless the bar knows it. */
export function withGroup(bar: BarModel, group: string): BarModel {
  return withNew(bar, [{ name: groupOf(group), mean: 0, sd: engineDefaults.groupSd }]);
}

/** Adds another recipe of a coffee, unless the bar knows it: the house means both windows to be met at one collar. */
export function withRecipe(bar: BarModel, recipeId: string): BarModel {
  return withNew(bar, [{ name: recipeOf(recipeId), mean: 0, sd: engineDefaults.otherRecipeSd }]);
}

function withNew(bar: BarModel, unknowns: readonly Unknown[]): BarModel {
  const missing = unknowns.filter(({ name }) => !holds(bar.belief, name));
  return missing.length === 0 ? bar : { ...bar, belief: withUnknowns(bar.belief, missing) };
}

/** The bar without some of its unknowns: exactly what it holds of the rest. */
export function withoutUnknowns(bar: BarModel, names: readonly string[]): BarModel {
  return { ...bar, belief: marginalWithout(bar.belief, names) };
}

/** What a shot observes. */
function rowOf(shot: Pick<BarShot, 'grinder' | 'coffee' | 'group' | 'x' | 'lnDose' | 'recipe' | 'surroundings'>): Row {
  const row: [string, number][] = [
    [levelOf(shot.grinder, shot.coffee ?? null), 1],
    [responseOf(shot.grinder), shot.x],
    [DOSE, shot.lnDose],
  ];
  if (shot.group !== null) row.push([groupOf(shot.group), 1]);
  if (shot.recipe !== undefined) row.push([recipeOf(shot.recipe), 1]);
  if (shot.surroundings) row.push([AGE, shot.surroundings.ageDays], [HUMIDITY, shot.surroundings.humidityPct]);
  return row;
}

/**
 * One shot heard: a surprise weighs less, a choke is a bound, and the noise between shots is learned as it goes.
 * @param given the shot's weight, when it was weighed by more than what came before it
 * @returns the bar after it, and the weight that the shot was given, 0..1.15.
 */
export function updateWithShot(before: BarModel, shot: BarShot, given?: number): { bar: BarModel; weight: number } {
  const bar = shot.surroundings ? withSlopes(before) : before;
  const ownVariance = shotVarianceOf(bar, shot.by ?? null);
  const noiseVariance = noiseVarianceOf(bar, shot);
  const expected = predict(bar.belief, rowOf(shot));
  if (shot.choked) {
    return {
      bar: { ...bar, belief: updateWithLowerBound(bar.belief, expected, shot.lnTimeS, noiseVariance) },
      weight: 1,
    };
  }
  const residual = shot.lnTimeS - expected.mean;
  const weight = given ?? weightOf(residual, expected.variance + noiseVariance);
  const effectiveVariance = noiseVariance / weight;
  const belief = update(bar.belief, expected, shot.lnTimeS, effectiveVariance);
  // What is left over after the update, squared, as it is expected: of that, only the part that is not correction or blend
  // speaks of the noise between shots.
  const kept = effectiveVariance / (expected.variance + effectiveVariance);
  const left = (kept * residual) ** 2 + kept * expected.variance;
  const ownShare = ownVariance / noiseVariance;
  const squaredMiss = weight * left;
  const heard = withShotMiss({ ...bar, belief }, shot.by ?? null, ownShare * squaredMiss);
  if (!shot.measured) return { bar: heard, weight };
  return { bar: { ...heard, ways: waysAfter(bar.ways ?? {}, shot.measured, squaredMiss, noiseVariance) }, weight };
}

/** Variance of ln T between shots of one setting by one person; null: by whoever it is. */
export const shotVarianceOf = ({ noise, hands }: Pick<BarModel, 'noise' | 'hands'>, by: string | null): number =>
  varianceOfHands(noise, by === null ? null : (hands?.[by] ?? null));

function withShotMiss(bar: BarModel, by: string | null, squaredMiss: number): BarModel {
  const noise = withMiss(bar.noise, squaredMiss);
  if (by === null) return { ...bar, noise };
  return { ...bar, noise, hands: { ...bar.hands, [by]: withHandsMiss(bar.hands?.[by] ?? null, squaredMiss) } };
}

/**
 * How far a shot that the bar has heard lies from what the bar would say without it (leave-one-out residual of a linear
 * Gaussian model), in ln T.
 * @param weight that it was heard with
 * @param driftedSince variance that the grinder's level has gained since: it blurs the shot like noise of its own
 */
export function missOfShot(
  bar: BarModel,
  shot: BarShot,
  weight: number,
  driftedSince: number,
): { residual: number; variance: number } {
  const noiseVariance = noiseVarianceOf(bar, shot);
  const effectiveVariance = noiseVariance / weight + driftedSince;
  const { mean, variance } = marginalOf(bar.belief, rowOf(shot));
  const left = shot.lnTimeS - mean;
  const leverage = Math.min(variance / effectiveVariance, MOST_LEVERAGE);
  const without = (leverage / (1 - leverage)) * effectiveVariance;
  return { residual: left / (1 - leverage), variance: without + noiseVariance + driftedSince };
}

/** Variance of a shot itself: hands, ways of measuring, corrections. */
export const noiseVarianceOf = (bar: BarModel, shot: BarShot): number =>
  shotVarianceOf(bar, shot.by ?? null) + varianceOfWays(shot.measured, bar.ways) + shot.addedVariance;

/** How far a shot lies from what the bar holds of it, in ln T, whether or not the bar has heard it. */
export const offOfShot = (bar: BarModel, shot: BarShot): number => shot.lnTimeS - meanOf(bar.belief, rowOf(shot));

/** A shot that alone decides what the bar holds has nothing to be compared with. */
const MOST_LEVERAGE = 0.999;

/**
 * A grinder may have moved on its own: time, a new bag, a service.
 * @param variance that its level gains, and `relativeVariance` that its response gains in proportion to itself
 */
export function drift(
  bar: BarModel,
  grinder: string,
  variance: number,
  relativeVariance = 0,
  coffee: string | null = null,
): BarModel {
  if (variance === 0 && relativeVariance === 0) return bar;
  const response = relativeVariance === 0 ? 0 : (knownOf(bar, responseOf(grinder))?.mean ?? 0);
  const growth = [
    [levelOf(grinder, coffee), variance],
    [responseOf(grinder), relativeVariance * response ** 2],
  ] as const;
  return { ...bar, belief: addProcessNoise(bar.belief, growth) };
}

/** What may have wandered before a shot, all at once; variances, that of the response in parts of its own square. */
export function wander(
  bar: BarModel,
  { grinder, coffee, group }: Pick<BarShot, 'grinder' | 'coffee' | 'group'>,
  by: { levelVariance: number; responseVariance: number; groupVariance: number },
): BarModel {
  const growth: [string, number][] = [];
  if (by.levelVariance > 0) growth.push([levelOf(grinder, coffee ?? null), by.levelVariance]);
  if (by.responseVariance > 0) {
    const response = knownOf(bar, responseOf(grinder))?.mean ?? 0;
    growth.push([responseOf(grinder), by.responseVariance * response ** 2]);
  }
  if (group !== null && by.groupVariance > 0) growth.push([groupOf(group), by.groupVariance]);
  return growth.length === 0 ? bar : { ...bar, belief: addProcessNoise(bar.belief, growth) };
}

/** A group's effect may have moved: its screen clogs, its gasket wears, it was cleaned. */
export function driftGroup(bar: BarModel, group: string, variance: number): BarModel {
  return { ...bar, belief: addProcessNoise(bar.belief, [[groupOf(group), variance]]) };
}

/** Mean and doubt (one sd) of one unknown of the bar, by the names above; null when the bar does not hold it. */
export function knownOf(bar: BarModel, name: string): { mean: number; sd: number } | null {
  const known = unknownIn(bar.belief, name);
  return known && { mean: known.mean, sd: Math.sqrt(known.variance) };
}
