import { FLOAT_DUST, usual } from '../numbers/index.ts';
import type { AdviceCase, CaseShot } from './adviceCase.ts';
import { doseDoubtG } from './measuring.ts';

type Dose = Pick<CaseShot, 'doseG' | 'measured'>;

/** Grams either way within which a dose is as asked: the recipe's, or what its way of measuring can do where that is wider. */
const toleranceG = ({ doseG, measured }: Dose, { recipe }: Pick<AdviceCase, 'recipe'>): number =>
  Math.max(recipe.doseToleranceG ?? usual.doseToleranceG, doseDoubtG(doseG, measured));

/**
 * Grams outside the tolerance about `askedG`: 0 inside; otherwise the whole deviation, signed. Where the recipe bears no more
 * than it asks for, only what its way cannot see is forgiven above.
 */
export function doseMissG(dose: Dose, input: Pick<AdviceCase, 'recipe'>, askedG: number): number {
  const byG = dose.doseG - askedG;
  const overG = input.recipe.doseNoMore ? doseDoubtG(dose.doseG, dose.measured) : toleranceG(dose, input);
  const mostG = byG > 0 ? overG : toleranceG(dose, input);
  return Math.abs(byG) > mostG + FLOAT_DUST ? byG : 0;
}

/** Whether a dose lies within `moreG` beyond its tolerance of what the recipe asks for. */
export const isDoseNear = (dose: Dose, input: Pick<AdviceCase, 'recipe'>, moreG: number): boolean =>
  Math.abs(dose.doseG - input.recipe.doseG) <= toleranceG(dose, input) + moreG;
