const DIGITS = 100;
const TENTHS = 10;

/** Yield in grams per gram of dose, to a hundredth; null where the dose is no dose. */
export function ratioOf(doseG: number, yieldG: number): number | null {
  return doseG > 0 && yieldG > 0 ? Math.round((yieldG / doseG) * DIGITS) / DIGITS : null;
}

/** The yield that a ratio asks of a dose, to the tenth of a gram that the scale shows. */
export function yieldOfRatioG(doseG: number, ratio: number): number {
  return Math.round(doseG * ratio * TENTHS) / TENTHS;
}

/** Ratios that drink well, and ratios that could be meant. */
export const ratioLimits = { usual: [1, 4], accept: [0.8, 15] } as const;
