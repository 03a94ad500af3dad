import { engineDefaults } from './engineDefaults.ts';

/** What was measured of one shot. Grams and seconds; `firstDropS` null when nobody saw it. */
export interface ShotNumbers {
  doseG: number;
  yieldG: number;
  timeS: number;
  firstDropS: number | null;
}

export interface NormalisedTime {
  /** ln of the seconds that the shot would have taken at exactly the recipe's yield, with the dose it had. */
  lnAtYieldS: number;
  /** ln(D / D_recipe) */
  lnDose: number;
  /** Variance that the yield correction adds, in ln s. */
  correctionVariance: number;
  /** Seconds at exactly the recipe's dose and yield, by the usual dose exponent. */
  normalisedS: number;
}

/**
 * Normalised shot time: what the shot would have taken at the recipe's dose and yield, so that shots stopped by yield,
 * by time or by volume compare.
 *
 *   t_y = t_fd + (t - t_fd) (Y_recipe / Y)^0.95,   ln T = ln t_y + gamma ln(D_recipe / D)
 *
 * The first drop counts as 0.22 t when unseen, and never past the end of the shot. The dose exponent gamma is learned by
 * the bar model, so the two terms come apart.
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
  const lnDose = Math.log(shot.doseG / recipe.doseG);
  const atYieldS = firstDropS + (shot.timeS - firstDropS) * Math.exp(d.yieldExponent * lnYield);
  return {
    lnAtYieldS: Math.log(atYieldS),
    lnDose,
    correctionVariance: (d.yieldCorrectionSd * lnYield) ** 2,
    normalisedS: atYieldS * Math.exp(-d.doseExponent * lnDose),
  };
}
