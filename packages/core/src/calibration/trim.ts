import type { AdviceCase, RecipeTarget } from './adviceCase.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { ResponseLine } from './responseLine.ts';
import { windowMiddleS } from './windowMiddle.ts';

/**
 * Between two marks of a stepped grinder the dose takes up the rest (handbook: 0.2-0.4 g). It costs no purge.
 * @returns the grams off the recipe's dose that may be tried, smallest first; none where the collar itself is fine enough
 *   or the house does not trim by the dose.
 */
export function trimDoses(input: Pick<AdviceCase, 'dial' | 'recipe' | 'house'>, line: ResponseLine): readonly number[] {
  if (input.house.trim !== 'dose' || !isCoarse(input, line)) return [];
  return engineDefaults.trimsG.flatMap((grams) => [grams, -grams]);
}

const TENTHS = 10;

/**
 * What a house that trims by the yield or by the tamp does between two marks, in words for a person: the engine's own
 * choice of mark stays as it is, since neither is the grinder's.
 * @param expectedS the time that the mark is expected to give
 * @returns null where the collar is fine enough, or the mark is near the middle already
 */
export function trimByHand(
  input: Pick<AdviceCase, 'dial' | 'recipe' | 'house'>,
  line: ResponseLine,
  expectedS: number,
): { by: 'yield'; toG: number } | { by: 'tamp'; offS: number } | null {
  const { trim } = input.house;
  if ((trim !== 'yield' && trim !== 'tamp') || !isCoarse(input, line)) return null;
  const middleS = windowMiddleS(input.recipe.timeS);
  const off = Math.log(middleS / expectedS);
  if (Math.abs(off) < TRIM_WORTH_SHARE * input.dial.stepMarks * line.response) return null;
  if (trim === 'tamp') return { by: 'tamp', offS: middleS - expectedS };
  const toG = input.recipe.yieldG * Math.exp(off / engineDefaults.yieldExponent);
  return { by: 'yield', toG: Math.round(toG * TENTHS) / TENTHS };
}
/** Nearer to the middle than a quarter of a step, nobody trims. */
const TRIM_WORTH_SHARE = 0.25;

/** Farthest that a trim may move ln T, either way. */
export function trimReach(input: Pick<AdviceCase, 'dial' | 'recipe' | 'house'>, line: ResponseLine): number {
  const most = Math.max(0, ...trimDoses(input, line));
  return line.doseExponent * lnOfTrim(input.recipe, most);
}

/** ln of the trimmed dose over the recipe's. */
export function lnOfTrim(recipe: Pick<RecipeTarget, 'doseG'>, trimG: number): number {
  return trimG === 0 ? 0 : Math.log((recipe.doseG + trimG) / recipe.doseG);
}

/** Whether one step of the collar is a large part of the window. */
function isCoarse({ dial, recipe }: Pick<AdviceCase, 'dial' | 'recipe'>, line: ResponseLine): boolean {
  const window = Math.log(recipe.timeS.max / recipe.timeS.min);
  return dial.stepMarks * line.response > engineDefaults.coarseStepShare * window;
}
