/** The value below which a share of the sorted sample lies (nearest rank). @throws RangeError for an empty sample. */
export function quantile(sample: readonly number[], share: number): number {
  const sorted = sample.toSorted((a, b) => a - b);
  const value = sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)];
  if (value === undefined) throw new RangeError('quantile: the sample is empty');
  return value;
}

/** Arithmetic mean; NaN of nothing. */
export const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/** Share of the items of which it is true, in percent. */
export const percentOf = <T>(items: readonly T[], is: (item: T) => boolean): number =>
  (100 * items.filter(is).length) / items.length;
