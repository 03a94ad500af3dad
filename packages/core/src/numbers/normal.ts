/**
 * The standard normal distribution.
 */

const SQRT_2PI = Math.sqrt(2 * Math.PI);
/** Beyond this many sd the density underflows what a shot could ever tell us; tails are taken as 0 or 1. */
const FAR_TAIL = 38;

/** Density of N(0, 1) at z. */
export function normalDensity(z: number): number {
  return Math.exp(-0.5 * z * z) / SQRT_2PI;
}

/**
 * P(Z <= z) for Z ~ N(0, 1), relative error below 1e-13 within 7 sd and below 1e-7 beyond.
 * Hart's rational approximation as given by West, "Better approximations to cumulative normal functions",
 * Wilmott Magazine 2005.
 */
export function normalCdf(z: number): number {
  const a = Math.abs(z);
  if (a > FAR_TAIL) return z > 0 ? 1 : 0;
  const e = Math.exp(-0.5 * a * a);
  let tail: number;
  if (a < 7.07106781186547) {
    let top = 3.52624965998911e-2 * a + 0.700383064443688;
    top = top * a + 6.37396220353165;
    top = top * a + 33.912866078383;
    top = top * a + 112.079291497871;
    top = top * a + 221.213596169931;
    top = top * a + 220.206867912376;
    let bottom = 8.83883476483184e-2 * a + 1.75566716318264;
    bottom = bottom * a + 16.064177579207;
    bottom = bottom * a + 86.7807322029461;
    bottom = bottom * a + 296.564248779674;
    bottom = bottom * a + 637.333633378831;
    bottom = bottom * a + 793.826512519948;
    bottom = bottom * a + 440.413735824752;
    tail = (e * top) / bottom;
  } else {
    const fraction = a + 1 / (a + 2 / (a + 3 / (a + 4 / (a + 0.65))));
    tail = e / fraction / SQRT_2PI;
  }
  return z > 0 ? 1 - tail : tail;
}

/** ln of the density of Student's t at z, up to what is the same for all of one number of degrees of freedom. */
export const lnStudentT = (z: number, degrees: number): number => -((degrees + 1) / 2) * Math.log1p(z ** 2 / degrees);

/** P(low < X < high) for X ~ N(mean, sd^2). An sd of 0 is a point: 1 inside, 0 outside. */
export function chanceBetween(mean: number, sd: number, low: number, high: number): number {
  if (!(sd > 0)) return mean > low && mean < high ? 1 : 0;
  return Math.max(0, normalCdf((high - mean) / sd) - normalCdf((low - mean) / sd));
}

/**
 * Mean shift and variance factor of a standard normal known to exceed `alpha`
 * (Johnson, Kotz and Balakrishnan, Continuous Univariate Distributions 1, section 10.1).
 */
export function truncatedAbove(alpha: number): { meanShift: number; varianceFactor: number } {
  const upper = normalCdf(-alpha);
  // Far in the tail the ratio density / upper tends to alpha + 1 / alpha; dividing two underflows would give NaN.
  const hazard = upper > 1e-300 ? normalDensity(alpha) / upper : alpha + 1 / alpha;
  const varianceFactor = 1 - hazard * (hazard - alpha);
  return { meanShift: hazard, varianceFactor: Math.min(1, Math.max(0, varianceFactor)) };
}
