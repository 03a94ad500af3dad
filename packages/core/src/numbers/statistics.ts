/** Sum of the values; 0 of none. */
export const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

/** Arithmetic mean. @throws RangeError for an empty sample */
export function mean(sample: readonly number[]): number {
  if (sample.length === 0) throw new RangeError('mean: the sample is empty');
  return sum(sample) / sample.length;
}

/**
 * Sample variance, with n - 1 below (Bessel's correction); the unit is the sample's squared.
 * @throws RangeError for fewer than two values
 */
export function variance(sample: readonly number[]): number {
  if (sample.length < 2) throw new RangeError(`variance: needs two values, got ${sample.length}`);
  const middle = mean(sample);
  return sum(sample.map((value) => (value - middle) ** 2)) / (sample.length - 1);
}

/** Sample standard deviation: the root of `variance`. @throws RangeError for fewer than two values */
export const standardDeviation = (sample: readonly number[]): number => Math.sqrt(variance(sample));

/**
 * The value below which a share of the sample lies, straight between the two nearest (type 7 of Hyndman and Fan 1996):
 * quantile([1, 2, 3, 4], 0.5) is 2.5.
 * @param share 0 to 1
 * @throws RangeError for an empty sample, or a share outside 0..1
 */
export function quantile(sample: readonly number[], share: number): number {
  if (!(share >= 0 && share <= 1)) throw new RangeError(`quantile: the share must lie in 0..1, got ${share}`);
  const sorted = sample.toSorted((a, b) => a - b);
  const at = share * (sorted.length - 1);
  const below = sorted[Math.floor(at)];
  if (below === undefined) throw new RangeError('quantile: the sample is empty');
  const above = sorted[Math.ceil(at)] ?? below;
  return below + (above - below) * (at - Math.floor(at));
}

/** The middle of the sample: its quantile at a half. @throws RangeError for an empty sample */
export const median = (sample: readonly number[]): number => quantile(sample, 0.5);
