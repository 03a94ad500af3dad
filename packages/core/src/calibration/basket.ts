import type { CaseShot, RecipeTarget } from './adviceCase.ts';
import { doseMissG } from './doseTolerance.ts';

/** Whether a basket was made for a dose; a basket that nobody described takes any. */
export const fitsBasket = (doseG: number, basketG: RecipeTarget['basketG'] | null): boolean =>
  !basketG || (doseG >= basketG.min && doseG <= basketG.max);

/** The basket that a dose is too much or too little for; null: it takes it, or it takes the recipe's dose and this one is as asked for. */
export function tooSmallOrLarge(
  dose: Pick<CaseShot, 'doseG' | 'measured'>,
  recipe: RecipeTarget,
): { min: number; max: number } | null {
  const { basketG, doseG } = recipe;
  if (!basketG || fitsBasket(dose.doseG, basketG)) return null;
  return fitsBasket(doseG, basketG) && doseMissG(dose, { recipe }, doseG) === 0 ? null : basketG;
}
