import type { Grinder } from '@tempera/contract/bar';
import type { PurgeBody } from '@tempera/core/facts';
import type { ServicePolicy } from '@tempera/core/house';
import { usual } from '@tempera/core/numbers';
import { grams, seconds } from '../kernel/format.ts';

type Count = ServicePolicy['purgeCount'];
type Ground = Pick<Grinder, 'rateGps' | 'recipe'>;

/** Grams that one of the house's counts is. */
function gramsOf(count: Count, { rateGps, recipe }: Ground): number {
  if (count === 'grams') return 1;
  return count === 'seconds' ? (rateGps ?? usual.grindRateGps) : recipe.doseG;
}

export const purgeUnit: Record<Count, string> = {
  grams: 'g',
  seconds: 's',
  portafilters: 'portafilters',
  doses: 'doses',
};

/** What is thrown away, as the house counts it; whole and half baskets are rounded up, so that the chute is empty. */
export function purgeWord(purgeG: number, count: Count, grinder: Ground): string {
  if (count === 'grams') {
    return grinder.rateGps ? `${grams(purgeG)}, about ${seconds(purgeG / grinder.rateGps)}` : grams(purgeG);
  }
  const n = purgeG / gramsOf(count, grinder);
  if (count === 'seconds') return `${seconds(n)}, about ${grams(purgeG)}`;
  const halves = count === 'doses' ? Math.ceil(n) : Math.ceil(2 * n) / 2;
  return `${halves} ${halves === 1 ? count.slice(0, -1) : count}`;
}

/** A purge as it was counted, in grams and as counted. */
export function purgeOf(n: number, count: Count, grinder: Ground): PurgeBody {
  if (count === 'grams') return { purgeG: n };
  const purgeG = Math.round(10 * n * gramsOf(count, grinder)) / 10;
  return { purgeG, ...(n > 0 ? { counted: { by: count, n } } : {}) };
}
