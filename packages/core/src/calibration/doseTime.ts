import type { StandingFacts } from '../facts/index.ts';
import { hoursBetween, usual } from '../numbers/index.ts';
import { addProcessNoise, beliefOf, predict, update, type Belief } from './belief.ts';
import { engineDefaults } from './engineDefaults.ts';

/** One weighed dose from a timed grind. */
export interface WeighedDose {
  grindTimeS: number;
  doseG: number;
  /** Marks finer than the reference when it was ground. */
  x: number;
  /** When it was ground, ms since the epoch. */
  atMs: number;
  /** What went into the hopper since the one before; absent: the same beans. */
  beans?: 'newBag' | 'newCoffee';
}

/** A grinder's timer is set in tenths of a second. */
const TIMER_STEPS_A_SECOND = 10;
/** What came before these has been forgotten by far. */
const NEWEST = 12;
const LN_RATE = 'ln rate';
const LOSS = 'loss';

/**
 * What weighed doses teach of a grinder: grams = rate (t - lag) exp(-kappa x), so ln(grams / (t - lag)) is a line in x. The
 * rate is learned from next to nothing, kappa from its usual value. The rate wanders with warmth, damp and beans (a local level,
 * Durbin & Koopman 2012, section 2): doses of a minute ago are averaged with the newest, those of yesterday say little beside it.
 * @returns null when no usable dose was weighed
 */
function grindRate(doses: readonly WeighedDose[]): Belief | null {
  const d = engineDefaults;
  const usable = doses.filter((dose) => dose.grindTimeS > usual.grindLagS && dose.doseG > 0).slice(-NEWEST);
  if (usable.length === 0) return null;
  const nobodyKnows = beliefOf([
    { name: LN_RATE, mean: Math.log(usual.grindRateGps), sd: d.usualRateLnSd },
    { name: LOSS, mean: d.rateLossPerMark, sd: d.rateLossPerMarkSd },
  ]);
  return usable.reduce((before, dose, i) => {
    const { doseG, grindTimeS, x } = dose;
    const belief = addProcessNoise(before, [[LN_RATE, wandered(usable[i - 1], dose)]]);
    const lnRate = Math.log(doseG / (grindTimeS - usual.grindLagS));
    return update(belief, predict(belief, rateAt(x)), lnRate, d.doseLnSd ** 2);
  }, nobodyKnows);
}

/** By how much what a timer gives wanders in so many hours of the same beans, variance of its logarithm. */
export function rateWanders(hours: number): number {
  const { rateWanderLnSd, rateWandersHours } = engineDefaults;
  return rateWanderLnSd ** 2 * (1 - Math.exp(-hours / rateWandersHours));
}

/** By how much the rate may have changed from one dose to the next, variance of its logarithm. */
function wandered(before: WeighedDose | undefined, { atMs, beans }: WeighedDose): number {
  if (!before) return 0;
  const { rateBagLnSd, rateCoffeeLnSd } = engineDefaults;
  const otherBeansLnSd = beans === undefined ? 0 : beans === 'newBag' ? rateBagLnSd : rateCoffeeLnSd;
  return rateWanders(Math.max(0, hoursBetween(before.atMs, atMs))) + otherBeansLnSd ** 2;
}

const rateAt = (x: number) =>
  [
    [LN_RATE, 1],
    [LOSS, -x],
  ] as const;

/**
 * Grind time that gives `doseG` at `x`, in tenths of a second.
 * @returns null when no usable dose was weighed.
 */
export function grindTimeForS(doses: readonly WeighedDose[], doseG: number, x: number): number | null {
  const belief = grindRate(doses);
  if (belief === null) return null;
  const rateGps = Math.exp(predict(belief, rateAt(x)).mean);
  const timeS = usual.grindLagS + doseG / rateGps;
  return Math.round(timeS * TIMER_STEPS_A_SECOND) / TIMER_STEPS_A_SECOND;
}

/** What weighing a handful of doses says of a grind time. */
export interface DoseVerdict {
  meanG: number;
  /** Sample standard deviation; 0 of a single dose. */
  sdG: number;
  count: number;
  /** The mean is inside the tolerance, and single doses scatter by no more than it (one sd). */
  holds: boolean;
}

/**
 * Verifies a grind time: the mean of n doses against the recipe's, and their spread against its tolerance. A time that
 * gives the right mean may still scatter too much to be trusted.
 * @throws RangeError when no dose was weighed
 */
export function verifyDoses(dosesG: readonly number[], recipe: { doseG: number; toleranceG: number }): DoseVerdict {
  const count = dosesG.length;
  if (count === 0) throw new RangeError('verifyDoses: no dose was weighed');
  const meanG = dosesG.reduce((sum, doseG) => sum + doseG, 0) / count;
  const squares = dosesG.reduce((sum, doseG) => sum + (doseG - meanG) ** 2, 0);
  const sdG = count > 1 ? Math.sqrt(squares / (count - 1)) : 0;
  const FLOAT_DUST_G = 1e-9;
  // Scales read to 0.1 g: a mean exactly at the tolerance is inside, whatever binary fractions make of it.
  const mostG = recipe.toleranceG + FLOAT_DUST_G;
  return { meanG, sdG, count, holds: count > 1 && Math.abs(meanG - recipe.doseG) <= mostG && sdG <= mostG };
}

/** Grind times are set in tenths: half of one apart they are the same. */
const SAME_TIME_S = 0.05;

/** The newest doses of a grinder that were weighed at this very grind time, since its collar moved last, oldest first, g. */
export function dosesAtS(own: StandingFacts, grindTimeS: number): number[] {
  const moved = own.findLastIndex(({ kind }) => kind === 'collarMove' || kind === 'newBag') + 1;
  return own
    .slice(moved)
    .filter((fact) => fact.kind === 'dose')
    .filter(({ body }) => (body.way ?? 'scale') === 'scale' && body.firstPartG === undefined)
    .filter(({ body }) => body.grindTimeS !== null && Math.abs(body.grindTimeS - grindTimeS) < SAME_TIME_S)
    .map(({ body }) => body.doseG)
    .slice(-ENOUGH_DOSES);
}

/** As many doses as a mean and its spread want. */
export const ENOUGH_DOSES = 3;

/** What a handful of weighed doses says, and what to do about it. */
export interface JudgedDoses extends DoseVerdict {
  /** Single doses lie further apart than the recipe bears: no grind time mends that. */
  scatters: boolean;
  /** The grind time that would fit better; null where nothing is ground by time, or it fits. */
  betterS: number | null;
}

/**
 * Judges doses against the recipe's, and names a better grind time.
 * @param timeS grind time of these doses; null: they were not ground by time
 * @returns null when no dose was weighed
 */
export function judgeDoses(
  dosesG: readonly number[],
  { doseG, doseToleranceG }: { doseG: number; doseToleranceG: number },
  timeS: number | null,
): JudgedDoses | null {
  if (dosesG.length === 0) return null;
  const verdict = verifyDoses(dosesG, { doseG, toleranceG: doseToleranceG });
  const scatters = verdict.sdG > doseToleranceG;
  const fitting =
    timeS === null
      ? null
      : grindTimeForS(
          dosesG.map((weighedG) => ({ grindTimeS: timeS, doseG: weighedG, x: 0, atMs: 0 })),
          doseG,
          0,
        );
  return { ...verdict, scatters, betterS: verdict.holds || scatters || fitting === timeS ? null : fitting };
}
