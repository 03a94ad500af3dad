import { engineDefaults } from './engineDefaults.ts';

/** What was measured of one shot. Grams and seconds; `firstDropS` null when nobody saw it. */
export interface ShotNumbers {
  doseG: number;
  yieldG: number;
  timeS: number;
  firstDropS: number | null;
}

export interface NormalisedTime {
  /** ln of the seconds that the shot would have taken at exactly the recipe's dose and yield. */
  lnT: number;
  /** Variance that the two corrections add to lnT. */
  correctionVariance: number;
}

/**
 * Normalised shot time: what the shot would have taken at the recipe's dose and yield, so that shots stopped by yield,
 * by time or by volume compare.
 *
 *   t_y = t_fd + (t - t_fd) (Y_recipe / Y)^0.95,   ln T = ln t_y + gamma ln(D_recipe / D)
 *
 * The first drop counts as 0.22 t when unseen, and never past the end of the shot.
 * @throws RangeError when dose, yield or time is not positive.
 */
export function normalisedTime(shot: ShotNumbers, recipe: { doseG: number; yieldG: number }): NormalisedTime {
  for (const [name, value] of [
    ['doseG', shot.doseG],
    ['yieldG', shot.yieldG],
    ['timeS', shot.timeS],
    ['recipe.doseG', recipe.doseG],
    ['recipe.yieldG', recipe.yieldG],
  ] as const) {
    if (!(value > 0)) throw new RangeError(`normalisedTime: ${name} must be above 0, got ${value}`);
  }
  const d = engineDefaults;
  const firstDropS = Math.min(shot.firstDropS ?? d.firstDropShare * shot.timeS, shot.timeS);
  const lnYield = Math.log(recipe.yieldG / shot.yieldG);
  const lnDose = Math.log(recipe.doseG / shot.doseG);
  const atYieldS = firstDropS + (shot.timeS - firstDropS) * Math.exp(d.yieldExponent * lnYield);
  return {
    lnT: Math.log(atYieldS) + d.doseExponent * lnDose,
    correctionVariance: (d.doseExponentSd * lnDose) ** 2 + (d.yieldCorrectionSd * lnYield) ** 2,
  };
}
