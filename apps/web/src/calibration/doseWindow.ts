import type { RecipeVersion } from '@tempera/contract/house';

/** Between what grams a dose is right, about what is asked for. */
export const doseWindow = (
  { doseToleranceG, doseNoMore }: Pick<RecipeVersion, 'doseToleranceG' | 'doseNoMore'>,
  askedG: number,
): { low: number; high: number } => ({
  low: askedG - doseToleranceG,
  high: doseNoMore ? askedG : askedG + doseToleranceG,
});
