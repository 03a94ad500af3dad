/** How long stock lasts. */
export interface RunOut {
  /** Days of work that the stock lasts. */
  days: number;
  /** One day's use varies: the 80 % band. */
  lowDays: number;
  highDays: number;
}

const Z_80 = 1.2816;

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
  const mean = dailyG.reduce((sum, grams) => sum + grams, 0) / n;
  if (mean <= 0) return null;
  const variance = dailyG.reduce((sum, grams) => sum + (grams - mean) ** 2, 0) / (n - 1);
  const days = Math.max(0, stockG) / mean;
  const sdDays = Math.sqrt(days * variance + (days ** 2 * variance) / n) / mean;
  return { days, lowDays: Math.max(0, days - Z_80 * sdDays), highDays: days + Z_80 * sdDays };
}
