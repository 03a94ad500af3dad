import { windowMiddleS, type RecipeTarget } from '../calibration/index.ts';
import type { Puck } from './puck.ts';

/**
 * How hard the bed resists, as ln of its resistance against the bed that meets the recipe in the middle of its window.
 * Darcy's law through a packed bed, with the permeability of Kozeny and Carman: R ~ mu L (1 - eps)^2 / (eps^3 d^2).
 */

/** Porosity of a tamped bed under pressure (0.15-0.20 in published measurements), and what it loses as the basket fills. */
const POROSITY = 0.17;
const POROSITY_LOSS = 0.06;
/** Viscosity of water falls by 11 % from 90 to 100 degC (steam tables). */
const LN_VISCOSITY_PER_C = -0.011;
/** The bed packs under pressure, so flow grows with about its square root. */
const PRESSURE_EXPONENT = -0.5;
const NOMINAL_C = 93;
const NOMINAL_BAR = 9;

/** ln of resistance from the dose: a deeper bed, packed tighter. About 2.2 ln(D / D_recipe) near the recipe's dose. */
export function lnOfDose(doseG: number, recipeDoseG: number): number {
  const fill = doseG / recipeDoseG;
  const porosity = Math.max(0.05, POROSITY - POROSITY_LOSS * (fill - 1));
  const packing = (eps: number): number => 2 * Math.log(1 - eps) - 3 * Math.log(eps);
  return Math.log(fill) + packing(porosity) - packing(POROSITY);
}

/** What a group head adds to ln of resistance: its water's temperature, its pressure, and a screen that clogs. */
export function lnOfGroup(group: { tempC: number; pressureBar: number; lnScreen: number }): number {
  return (
    LN_VISCOSITY_PER_C * (group.tempC - NOMINAL_C) +
    PRESSURE_EXPONENT * Math.log(group.pressureBar / NOMINAL_BAR) +
    group.lnScreen
  );
}

/** The pump fills the headspace, then water soaks the bed, the slower the tighter it is. */
const FILL_S = 2.2;
const SOAK_SHARE = 0.14;
const SOAK_EXPONENT = 0.6;
/** A bed loses resistance as it washes out: at the end of a shot it flows about a third faster than at its start. */
const WASH_OUT = 0.35;
const DRIP_S = 0.75;
const LONGEST_S = 400;

type Target = Pick<RecipeTarget, 'doseG' | 'yieldG' | 'timeS'>;

/**
 * The puck of a bed with this ln resistance. The base flow is set so that ln resistance 0 with the recipe's dose gives the
 * recipe's yield at the middle of its window.
 */
export function puckOf(recipe: Target, lnResistance: number, channel?: { afterS: number; flow: number }): Puck {
  const middleS = windowMiddleS(recipe.timeS);
  const nominalSoakS = FILL_S + SOAK_SHARE * middleS;
  const washOutG = recipe.yieldG / WASH_OUT;
  const nominalGps = (washOutG * Math.log1p(WASH_OUT)) / (middleS - nominalSoakS);
  const resistance = Math.exp(lnResistance);
  return {
    soakS: FILL_S + SOAK_SHARE * middleS * resistance ** SOAK_EXPONENT,
    flowGps: nominalGps / resistance,
    washOutG,
    dripS: DRIP_S,
    channelAfterS: channel?.afterS ?? Infinity,
    channelFlow: channel?.flow ?? 1,
  };
}

/** The truth that no scale shows: seconds to a yield, the recipe's unless said otherwise, through a sound bed by a hand without noise. */
export function trueTimeS(recipe: Target, lnResistance: number, yieldG = recipe.yieldG): number {
  const { soakS, flowGps, washOutG } = puckOf(recipe, lnResistance);
  const timeS = soakS + (washOutG / flowGps) * Math.log1p(yieldG / washOutG);
  return timeS > LONGEST_S ? Infinity : timeS;
}
