import { engineDefaults } from './engineDefaults.ts';

/**
 * Grounds held between burrs and spout, as one well-mixed vessel of `retentionG` grams: every gram ground pushes a gram
 * out. The share of old grounds left after p grams is exp(-p / m), and in the next dose of D grams it averages
 * (m / D) exp(-p / m) (1 - exp(-D / m)).
 */
export interface Retained {
  /** Mean of x (marks finer than the reference) over the grounds now held. */
  x: number;
}

/** The retained grounds after `grams` more were ground at `x`. */
export function grindThrough(held: Retained, x: number, grams: number, retentionG: number): Retained {
  if (!(retentionG > 0)) return { x };
  return { x: x + (held.x - x) * Math.exp(-grams / retentionG) };
}

/** Share of the next dose that still comes from the held grounds. */
export function oldShare(doseG: number, purgedG: number, retentionG: number): number {
  if (!(retentionG > 0)) return 0;
  return (retentionG / doseG) * Math.exp(-purgedG / retentionG) * (1 - Math.exp(-doseG / retentionG));
}

const LN_STEP = 0.05;

/** Doubt of the old share, one sd, from the doubt of the retention; the retention in grams, null when nobody knows. */
export function oldShareSd(doseG: number, purgedG: number, retentionG: number | null): number {
  const { retentionUnknownG, retentionUnknownLnSd, retentionKnownLnSd } = engineDefaults;
  const heldG = retentionG ?? retentionUnknownG;
  const perLn =
    (oldShare(doseG, purgedG, heldG * Math.exp(LN_STEP)) - oldShare(doseG, purgedG, heldG * Math.exp(-LN_STEP))) /
    (2 * LN_STEP);
  return Math.abs(perLn) * (retentionG === null ? retentionUnknownLnSd : retentionKnownLnSd);
}

/**
 * Grams to purge after a move so that less than 5 % of the next dose is old grounds, in half grams upwards.
 * 0 where so little is held that no purge is needed.
 */
export function purgeAdviceG(doseG: number, retentionG: number | null): number {
  const { retentionUnknownG, oldShareAfterPurge, purgeStepG } = engineDefaults;
  const held = retentionG ?? retentionUnknownG;
  const unpurged = oldShare(doseG, 0, held);
  if (unpurged <= oldShareAfterPurge) return 0;
  const grams = held * Math.log(unpurged / oldShareAfterPurge);
  return Math.ceil(grams / purgeStepG) * purgeStepG;
}

/** What a grinder's chute holds from one shot to the next. */
export interface Chute {
  /** Mean of x over the grounds held; null before the first dose that we know of. */
  x: number | null;
  /** Where the last shot was ground. */
  setting: number | null;
}
