import { mean, standardDeviation, Z_80 } from '../numbers/index.ts';

/** A bag in the freezer. */
export interface Frozen {
  id: string;
  weightG: number;
  roastedAtMs: number;
}

/** A stay in the freezer, in days of the café; `until` null while it lasts. */
export interface FreezerStay {
  on: string;
  until: string | null;
}

/** A bag's stays once it was taken out: the one that lasted ended on that day. */
export const takenOut = (stays: readonly FreezerStay[], day: string): FreezerStay[] =>
  stays.map((stay) => (stay.until === null ? { ...stay, until: day > stay.on ? day : stay.on } : stay));

/** The same where it was not taken out after all: a last stay that ended on that day lasts. */
export const leftIn = (stays: readonly FreezerStay[], day: string): FreezerStay[] =>
  stays.map((stay, i) => (i === stays.length - 1 && stay.until === day ? { ...stay, until: null } : stay));

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
