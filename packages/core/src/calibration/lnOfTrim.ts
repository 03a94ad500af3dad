import type { RecipeTarget } from './adviceCase.ts';

/** ln of the trimmed dose over the recipe's. */
export function lnOfTrim(recipe: Pick<RecipeTarget, 'doseG'>, trimG: number): number {
  return trimG === 0 ? 0 : Math.log((recipe.doseG + trimG) / recipe.doseG);
}
