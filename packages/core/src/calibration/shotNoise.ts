import { engineDefaults } from './engineDefaults.ts';

/** How far two shots of one setting differ in ln T, learned: an inverse gamma belief about the variance. */
export interface ShotNoise {
  readonly shape: number;
  readonly scale: number;
}

export const usualNoise: ShotNoise = {
  shape: engineDefaults.shotSdShots / 2,
  scale: (engineDefaults.shotSdShots / 2) * engineDefaults.shotSd ** 2,
};

/** Variance of ln T between shots of one setting. */
export function varianceOf(noise: ShotNoise): number {
  return noise.scale / noise.shape;
}

/** What a person's shots have said of their hands: how many, and the sum of their squared misses. */
export interface Hands {
  readonly shots: number;
  readonly squaredMisses: number;
}

/**
 * Variance of ln T between one person's shots: what theirs say, shared towards the house's as long as they are few (the mean of
 * an inverse gamma belief with the house's variance for so many shots).
 * @param hands null: nobody says who, or the person is new
 */
export function varianceOfHands(house: ShotNoise, hands: Hands | null): number {
  if (hands === null) return varianceOf(house);
  const { handsShots } = engineDefaults;
  return (handsShots * varianceOf(house) + hands.squaredMisses) / (handsShots + hands.shots);
}

/** A person's hands after one more of their shots. @param squaredMiss as in `withMiss` */
export const withHandsMiss = (hands: Hands | null, squaredMiss: number): Hands => ({
  shots: (hands?.shots ?? 0) + 1,
  squaredMisses: (hands?.squaredMisses ?? 0) + squaredMiss,
});

/**
 * The noise after one more shot, by the variational rule of Särkkä and Nummenmaa (IEEE Trans. Automatic Control 54, 2009).
 * @param squaredMiss expected squared distance of the shot from its mean, after it was heard, with its weight applied
 */
export function withMiss(noise: ShotNoise, squaredMiss: number): ShotNoise {
  return { shape: noise.shape + 0.5, scale: noise.scale + 0.5 * squaredMiss };
}

/**
 * A shot that hardly surprises counts for a little more than one, as in the EM for Student's t; with all of its (nu + 1) / nu the
 * weighing by one another could let a slower shot turn the collar finer.
 */
const MOST_WEIGHT = 1.15;

/**
 * Weight of a shot that surprises, above 0 and at most 1.15: Student-t up to where its pull is strongest, and from there as much pull as that (Huber's
 * tail), so that a slower shot never says less. Channels make shots fast, seldom slow, so fast ones lose weight sooner.
 */
export function weightOf(residual: number, predictedVariance: number): number {
  const { fastDegreesOfFreedom, slowDegreesOfFreedom } = engineDefaults;
  const nu = residual < 0 ? fastDegreesOfFreedom : slowDegreesOfFreedom;
  const sds = Math.abs(residual) / Math.sqrt(predictedVariance);
  // (nu + 1) r / (nu + r^2) is largest at r = sqrt(nu).
  const strongest = Math.sqrt(nu);
  if (sds > strongest) return Math.min(1, (nu + 1) / (2 * strongest) / sds);
  return Math.min(MOST_WEIGHT, (nu + 1) / (nu + sds ** 2));
}
