import { mean, variance, Z_80 } from '../numbers/index.ts';

/** How long stock lasts. */
export interface RunOut {
  /** Days of work that the stock lasts. */
  days: number;
  /** One day's use varies: the 80 % band. */
  lowDays: number;
  highDays: number;
}

/**
 * How many working days `stockG` lasts at the pace of the last days.
 * Use of a day is taken as independent from day to day, so doubt grows with the root of the days; the doubt of the mean
 * itself is added.
 * @param dailyG grams used on each of the last working days
 * @returns null when fewer than two days are known, or nothing is used
 */
export function runOut(stockG: number, dailyG: readonly number[]): RunOut | null {
  const n = dailyG.length;
  if (n < 2) return null;
  const meanG = mean(dailyG);
  if (meanG <= 0) return null;
  const varianceG2 = variance(dailyG);
  const days = Math.max(0, stockG) / meanG;
  const sdDays = Math.sqrt(days * varianceG2 + (days ** 2 * varianceG2) / n) / meanG;
  return { days, lowDays: Math.max(0, days - Z_80 * sdDays), highDays: days + Z_80 * sdDays };
}
