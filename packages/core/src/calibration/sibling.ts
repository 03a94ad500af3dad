import type { RecipeTarget } from './adviceCase.ts';
import type { LevelMemory } from './memoryState.ts';
import { windowMiddleS } from './windowMiddle.ts';

/**
 * A coffee's other recipe on the same grinder (a single beside a double): one collar, another bed. Its shots teach the level through
 * an unknown of the recipe's own, and what both windows' middles differ by. Null: it is the recipe that the level stands for.
 */
export function siblingOf(
  level: LevelMemory['recipe'],
  recipe: RecipeTarget,
): { recipeId: string; lnShift: number } | null {
  const { recipeId } = recipe;
  if (recipeId === undefined || level.recipeId === undefined || recipeId === level.recipeId) return null;
  const middleS = windowMiddleS(recipe.timeS);
  return { recipeId, lnShift: Math.log(middleS / (level.middleS ?? middleS)) };
}
