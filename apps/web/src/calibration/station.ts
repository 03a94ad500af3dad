import type { Grinder } from '@tempera/contract/bar';
import { engineDefaults, type GrinderInBar, type RecipeTarget } from '@tempera/core/calibration';
import { pumpWindowS } from '@tempera/core/house';

/** A grinder of the bar as the engine knows it. */

export function targetOf({ recipe }: Grinder): RecipeTarget {
  return {
    doseG: recipe.doseG,
    yieldG: recipe.yieldG,
    doseToleranceG: recipe.doseToleranceG,
    timeS: pumpWindowS(recipe),
  };
}

export function dialOf(grinder: Grinder) {
  return {
    stepMarks: grinder.stepMarks,
    finer: grinder.finer,
    range: { min: grinder.dialMin, max: grinder.dialMax },
    ...(grinder.dualWalled ? { mostSteps: engineDefaults.dualWallMostSteps } : {}),
  };
}

/** A grinder as the engine's memory of the whole bar knows it. */
export function inBar(grinder: Grinder): GrinderInBar {
  return { ...grinder, dial: dialOf(grinder), recipe: targetOf(grinder) };
}
