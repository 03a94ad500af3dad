import type { RecipeVersion } from '@tempera/contract/house';
import type { BandWindow } from '../ui/Band.tsx';

/** Between what grams a dose is right, about what is asked for. */
export const doseWindow = (
  { doseToleranceG, doseNoMore }: Pick<RecipeVersion, 'doseToleranceG' | 'doseNoMore'>,
  askedG: number,
): BandWindow => ({
  low: askedG - doseToleranceG,
  high: doseNoMore ? askedG : askedG + doseToleranceG,
  aim: askedG,
});
