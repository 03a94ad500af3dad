import { mean, standardDeviation, Z_80 } from '../numbers/index.ts';

/** A bag in the freezer. */
export interface Frozen {
  id: string;
  weightG: number;
  roastedAtMs: number;
}

/**
 * Grams of a coffee that tomorrow should have at hand: enough for nine days of ten like the last ones.
 * @param dailyG grams used on each of the last working days
 * @returns 0 where nothing was used yet
 */
export function dayNeedG(dailyG: readonly number[]): number {
  if (dailyG.length === 0) return 0;
  return mean(dailyG) + (dailyG.length > 1 ? Z_80 * standardDeviation(dailyG) : 0);
}

/**
 * Bags that must leave the freezer tonight, so that they are thawed when tomorrow needs them: the oldest roast first, as few
 * as cover what is not at hand.
 * @param atHandG what lies in hoppers, tubs and bags that are not frozen
 */
export function thawTonight<T extends Frozen>(frozen: readonly T[], needG: number, atHandG: number): T[] {
  const out: T[] = [];
  let missingG = needG - atHandG;
  for (const bag of frozen.toSorted((a, b) => a.roastedAtMs - b.roastedAtMs || a.id.localeCompare(b.id))) {
    if (missingG <= 0) break;
    out.push(bag);
    missingG -= bag.weightG;
  }
  return out;
}
