/** The least that a bag of the book holds. */
const LEAST_PORTION_G = 50;

/**
 * The grams of each portion when a bag is split evenly, whole grams, the odd ones in the last.
 * @returns null where a portion would be too small to be a bag of its own, or there is nothing to split
 */
export function portionsOf(weightG: number, portions: number): number[] | null {
  const each = Math.floor(weightG / portions);
  if (portions < 2 || each < LEAST_PORTION_G) return null;
  return Array.from({ length: portions }, (_, i) => (i < portions - 1 ? each : weightG - each * (portions - 1)));
}
