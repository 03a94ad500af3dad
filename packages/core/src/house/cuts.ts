/** A drink as a cut or a multiple of the house espresso. */
export interface Drink {
  /** Share of each basket's yield that is let run: 0.6 for a short one, 1 for the whole. */
  share: number;
  /** How many baskets' espresso goes into one drink: 0.5 is one spout of a double. */
  baskets: number;
  milkMl: number;
  foamMm: number;
  /** Served temperature of the milk, degC. */
  milkTempC: number;
  waterMl: number;
}

/** What a recipe in force asks of a basket. */
export interface CutRecipe {
  doseG: number;
  yieldG: number;
}

export interface DrinkCard {
  /** Ground coffee that the drink costs. */
  doseG: number;
  espressoG: number;
  /** What to stop each basket at. */
  stopAtG: number;
  milkG: number;
  waterG: number;
  /** When to close the steam; null without milk. */
  stopSteamC: number | null;
}

/** Whole milk, cold. */
const MILK_G_PER_ML = 1.03;
/** Milk climbs on after the steam is shut: the handbook's 5 to 10 degC, the more the smaller the jug. */
const CARRY_OVER_C = { most: 10, least: 5 };
const SMALL_JUG_ML = 120;
const LARGE_JUG_ML = 600;

/** How far milk climbs after the steam is shut, degC: 10 for a small jug, 5 for a large one, straight between. */
export function carryOverC(milkMl: number): number {
  const share = Math.min(1, Math.max(0, (milkMl - SMALL_JUG_ML) / (LARGE_JUG_ML - SMALL_JUG_ML)));
  return CARRY_OVER_C.most - share * (CARRY_OVER_C.most - CARRY_OVER_C.least);
}

/** Above this milk scalds and loses its sweetness, degC. */
export const SCALDS_C = 68;

/** Grams and temperatures of one drink from the recipe in force. */
export function drinkCard(drink: Drink, recipe: CutRecipe): DrinkCard {
  const stopAtG = recipe.yieldG * drink.share;
  return {
    doseG: recipe.doseG * drink.baskets,
    espressoG: stopAtG * drink.baskets,
    stopAtG,
    milkG: drink.milkMl * MILK_G_PER_ML,
    waterG: drink.waterMl,
    stopSteamC: drink.milkMl > 0 ? Math.round(drink.milkTempC - carryOverC(drink.milkMl)) : null,
  };
}
