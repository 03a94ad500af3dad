import { updateWithShot, missOfShot, wander, type BarModel, type BarShot } from './barModel.ts';
import { weightOf } from './shotNoise.ts';

/** One shot as evidence, with what may have wandered since the one before it. */
export interface Observation {
  readonly shot: BarShot;
  /** Variance that the level gained since the last shot of this grinder and coffee. */
  readonly levelVariance: number;
  /** Variance that the response gained, in parts of its own square. */
  readonly responseVariance: number;
  /** Variance that the group's effect gained since its last shot. */
  readonly groupVariance: number;
}

/** The memory weighs again and again as shots arrive, so two rounds at a time are enough for it. */
const MEMORY_ROUNDS = 2;

/** A shot that was heard, for weighing it again by what all the others say. */
export interface Weighed {
  shot: BarShot;
  weight: number;
  /** Variance that its level has gained since: it blurs the shot like noise of its own. */
  driftedSince: number;
}

/** Below this change in weight another round tells nothing new. */
const SAME_WEIGHT = 0.05;
/** Shots are weighed again by all the others this often at most; the weights settle in two or three rounds. */
export const WEIGHING_ROUNDS = 3;

/**
 * Weights of shots by what all the others say: each against the bar without it (leave-one-out residuals).
 * @param bar that has heard them all @param weighed null where a shot said nothing
 * @returns null when they are the weights that the shots already had
 */
export function leaveOneOutWeights(bar: BarModel, weighed: readonly (Weighed | null)[]): number[] | null {
  const weights = weighed.map((entry) => {
    if (!entry || entry.shot.choked) return 1;
    const { residual, variance } = missOfShot(bar, entry.shot, entry.weight, entry.driftedSince);
    return weightOf(residual, variance);
  });
  const changed = weighed.some(
    (entry, i) => entry !== null && Math.abs((weights[i] ?? 1) - entry.weight) > SAME_WEIGHT,
  );
  return changed ? weights : null;
}

/** The bar after one observation. @param weight null: by what came before it */
export function updateWithObservation(before: BarModel, observed: Observation, weight: number | null) {
  return updateWithShot(wander(before, observed.shot, observed), observed.shot, weight ?? undefined);
}

/**
 * Weights of the observations of one grinder, each by what all the others say: a channel in the first shot shows only later.
 * @param start the bar before the first of them
 */
export function robustWeights(start: BarModel, observations: readonly Observation[]): number[] {
  let heard = filterAll(start, observations, null);
  for (let round = 0; round < MEMORY_ROUNDS; round += 1) {
    const weights = leaveOneOutWeights(heard.bar, heard.weighed);
    if (weights === null) break;
    heard = filterAll(start, observations, weights);
  }
  return heard.weighed.map(({ weight }) => weight);
}

function filterAll(start: BarModel, observations: readonly Observation[], weights: readonly number[] | null) {
  let bar = start;
  const gained = new Map<string, number>();
  const weighed = observations.map((observed, i) => {
    const level = `${observed.shot.grinder} ${observed.shot.coffee ?? ''}`;
    const driftedBy = (gained.get(level) ?? 0) + observed.levelVariance;
    gained.set(level, driftedBy);
    const heard = updateWithObservation(bar, observed, weights?.[i] ?? null);
    bar = heard.bar;
    return { shot: observed.shot, weight: heard.weight, level, driftedBy };
  });
  return {
    bar,
    weighed: weighed.map(({ shot, weight, level, driftedBy }): Weighed => ({
      shot,
      weight,
      driftedSince: (gained.get(level) ?? 0) - driftedBy,
    })),
  };
}
