/** Weight of the newest value: the usual between a chart that is slow and one that is nervous (Montgomery 2009, ch. 9). */
const LAMBDA = 0.2;
/** Limits at three sd, as on every control chart. */
const LIMIT_SDS = 3;

/** One value of an exponentially weighted moving average, with its limits about the centre. */
export interface EwmaPoint {
  value: number;
  low: number;
  high: number;
}

/**
 * Exponentially weighted moving average of values, z_i = l x_i + (1 - l) z_(i-1), z_0 the centre, with limits
 * centre +- 3 sd sqrt(l / (2 - l) (1 - (1 - l)^(2 i))) (Roberts 1959).
 * @param centre what the values should be about @param sd of one value; same unit
 */
export function ewma(values: readonly number[], centre: number, sd: number): EwmaPoint[] {
  let z = centre;
  return values.map((value, i) => {
    z = LAMBDA * value + (1 - LAMBDA) * z;
    const grown = (LAMBDA / (2 - LAMBDA)) * (1 - (1 - LAMBDA) ** (2 * (i + 1)));
    const reach = LIMIT_SDS * sd * Math.sqrt(grown);
    return { value: z, low: centre - reach, high: centre + reach };
  });
}
