import type { RecipeTarget } from './adviceCase.ts';

/** Whether a basket was made for a dose; a basket that nobody described takes any. */
export const fitsBasket = (doseG: number, basketG: RecipeTarget['basketG'] | null): boolean =>
  !basketG || (doseG >= basketG.min && doseG <= basketG.max);
