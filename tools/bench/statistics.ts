/** The value below which a share of the sorted sample lies (nearest rank). @throws RangeError for an empty sample. */
export function quantile(sample: readonly number[], share: number): number {
  const sorted = sample.toSorted((a, b) => a - b);
  const value = sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)];
  if (value === undefined) throw new RangeError('quantile: the sample is empty');
  return value;
}
