import { engineDefaults } from './engineDefaults.ts';

/** One weighed dose from a timed grind. */
export interface WeighedDose {
  grindTimeS: number;
  doseG: number;
  /** Marks finer than the reference when it was ground. */
  x: number;
}

/** A grinder's timer is set in tenths of a second. */
const TIMER_STEP_S = 0.1;
/** Rate and drift change over the morning: only the newest weighings count. */
const NEWEST = 6;

/**
 * Grind time that gives `doseG` at `x`, from weighed doses: grams = rate (t - lag) exp(-kappa x), with the rate taken as
 * the mean over the newest weighings, each brought to x = 0. In tenths of a second.
 * @returns null when no usable dose was weighed.
 */
export function grindTimeForS(doses: readonly WeighedDose[], doseG: number, x: number): number | null {
  const { grindLagS, rateLossPerMark } = engineDefaults;
  const rates = doses
    .filter((dose) => dose.grindTimeS > grindLagS && dose.doseG > 0)
    .slice(-NEWEST)
    .map((dose) => (dose.doseG / (dose.grindTimeS - grindLagS)) * Math.exp(rateLossPerMark * dose.x));
  if (rates.length === 0) return null;
  const rateGps = rates.reduce((sum, rate) => sum + rate, 0) / rates.length;
  const timeS = grindLagS + (doseG / rateGps) * Math.exp(rateLossPerMark * x);
  return Math.round(timeS / TIMER_STEP_S) / (1 / TIMER_STEP_S);
}
