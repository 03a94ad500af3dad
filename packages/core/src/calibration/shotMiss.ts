import type { RecipeTarget } from './adviceCase.ts';
import { missOf } from './windowMiss.ts';
import { normalisedTime, type ShotNumbers } from './normalisedTime.ts';

/**
 * How far off a shot was, the same everywhere: seconds at the recipe's dose and yield, and how many of them lie outside its
 * window (0 inside, negative too fast).
 */
export function shotMiss(shot: ShotNumbers, recipe: RecipeTarget): { normalisedS: number; missS: number } {
  const { normalisedS } = normalisedTime(shot, recipe);
  return { normalisedS, missS: missOf(normalisedS, recipe.timeS) };
}
