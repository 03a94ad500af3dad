import { truncatedAbove } from '../numbers/index.ts';

/** A Gaussian belief over named unknowns: what the engine holds about the bar. Pure: every change gives a new belief. */
export interface Belief {
  readonly names: readonly string[];
  /** One mean a name. */
  readonly mean: Float64Array;
  /** n x n row by row, symmetric and positive. Flat, since a matrix library spends most of an update on making matrices. */
  readonly covariance: Float64Array;
}

export interface Unknown {
  name: string;
  mean: number;
  sd: number;
}

/** What an observation is made of: a weight for each unknown that takes part in it. */
export type Row = readonly (readonly [name: string, weight: number])[];

/** A belief over independent unknowns. */
export function beliefOf(unknowns: readonly Unknown[]): Belief {
  return withUnknowns({ names: [], mean: new Float64Array(0), covariance: new Float64Array(0) }, unknowns);
}

/** The belief with further unknowns, independent of what it held. */
export function withUnknowns(belief: Belief, unknowns: readonly Unknown[]): Belief {
  if (unknowns.length === 0) return belief;
  const before = belief.names.length;
  const size = before + unknowns.length;
  const mean = new Float64Array(size);
  const covariance = new Float64Array(size * size);
  mean.set(belief.mean);
  for (let i = 0; i < before; i += 1) {
    covariance.set(belief.covariance.subarray(i * before, (i + 1) * before), i * size);
  }
  unknowns.forEach((unknown, k) => {
    mean[before + k] = unknown.mean;
    covariance[(before + k) * (size + 1)] = unknown.sd ** 2;
  });
  return { names: [...belief.names, ...unknowns.map(({ name }) => name)], mean, covariance };
}

/** Places of the names, found once for each list of them. */
const placesOf = new WeakMap<readonly string[], ReadonlyMap<string, number>>();

function placeOf({ names }: Belief, name: string): number {
  let places = placesOf.get(names);
  if (!places) {
    places = new Map(names.map((one, i) => [one, i]));
    placesOf.set(names, places);
  }
  return places.get(name) ?? -1;
}

/** Whether the belief holds an unknown of this name. */
export const holds = (belief: Belief, name: string): boolean => placeOf(belief, name) >= 0;

/** The row by place instead of by name. @throws RangeError when it names something that the belief does not hold. */
function placed(belief: Belief, row: Row): [index: number, weight: number][] {
  return row.map(([name, weight]) => {
    const index = placeOf(belief, name);
    if (index < 0) throw new RangeError(`belief: nothing is known by the name ${name}`);
    return [index, weight];
  });
}

/** Mean and variance of one unknown; null when the belief does not hold it. */
export function unknownIn(belief: Belief, name: string): { mean: number; variance: number } | null {
  const at = placeOf(belief, name);
  if (at < 0) return null;
  return { mean: belief.mean[at] ?? 0, variance: belief.covariance[at * (belief.names.length + 1)] ?? 0 };
}

/** Mean and variance of what the row observes, without observation noise: as much of an expectation as a look needs. */
export function marginalOf(belief: Belief, row: Row): { mean: number; variance: number } {
  const columns = placed(belief, row);
  const size = belief.names.length;
  let [mean, variance] = [0, 0];
  for (const [i, left] of columns) {
    let withRow = 0;
    for (const [j, weight] of columns) withRow += weight * (belief.covariance[i * size + j] ?? 0);
    mean += left * (belief.mean[i] ?? 0);
    variance += left * withRow;
  }
  return { mean, variance };
}

/** Mean of what the row observes, without observation noise. */
export function meanOf(belief: Belief, row: Row): number {
  return placed(belief, row).reduce((sum, [i, weight]) => sum + weight * (belief.mean[i] ?? 0), 0);
}

/** Covariance of what two rows observe, without observation noise. */
export function covarianceOf(belief: Belief, a: Row, b: Row): number {
  const columns = placed(belief, b);
  const size = belief.names.length;
  let sum = 0;
  for (const [i, left] of placed(belief, a)) {
    for (const [j, right] of columns) sum += left * right * (belief.covariance[i * size + j] ?? 0);
  }
  return sum;
}

/** What the belief expects of an observation, before it is made: all that an update needs. */
export interface Prediction {
  mean: number;
  /** Variance without observation noise: h P h'. */
  variance: number;
  /** P h': covariance of every unknown with what is observed. */
  withAll: Float64Array;
}

/** Expects what the row observes. Rows are short, so this is n times a handful. */
export function predict(belief: Belief, row: Row): Prediction {
  const columns = placed(belief, row);
  const { covariance } = belief;
  const size = belief.names.length;
  const withAll = new Float64Array(size);
  for (const [j, weight] of columns) {
    for (let i = 0; i < size; i += 1) withAll[i] = (withAll[i] ?? 0) + weight * (covariance[i * size + j] ?? 0);
  }
  let [mean, variance] = [0, 0];
  for (const [j, weight] of columns) {
    mean += weight * (belief.mean[j] ?? 0);
    variance += weight * (withAll[j] ?? 0);
  }
  return { mean, variance, withAll };
}

/** The means moved by `shift` of the gain. */
function moved({ mean }: Belief, gain: Float64Array, shift: number): Float64Array {
  const after = new Float64Array(mean.length);
  for (let i = 0; i < mean.length; i += 1) after[i] = (mean[i] ?? 0) + (gain[i] ?? 0) * shift;
  return after;
}

/** The gain of an observation: its covariance with every unknown, over its own variance. */
function gainOf({ withAll }: Prediction, variance: number): Float64Array {
  const gain = new Float64Array(withAll.length);
  for (let i = 0; i < withAll.length; i += 1) gain[i] = (withAll[i] ?? 0) / variance;
  return gain;
}

/**
 * One observation h theta = value + noise: Kalman update in Joseph form, (I - K h) P (I - K h)' + K R K', written out for
 * one observation (Bierman 1977, section II). Half of it is worked out and mirrored, so it stays symmetric to the bit.
 */
export function update(belief: Belief, expected: Prediction, value: number, noiseVariance: number): Belief {
  const { withAll, variance, mean } = expected;
  const gain = gainOf(expected, variance + noiseVariance);
  const size = gain.length;
  const before = belief.covariance;
  const covariance = new Float64Array(size * size);
  for (let i = 0; i < size; i += 1) {
    const gainI = gain[i] ?? 0;
    const left = (withAll[i] ?? 0) - gainI * variance;
    for (let j = 0; j <= i; j += 1) {
      const gainJ = gain[j] ?? 0;
      const after =
        (before[i * size + j] ?? 0) - gainI * (withAll[j] ?? 0) - left * gainJ + gainI * noiseVariance * gainJ;
      covariance[i * size + j] = after;
      covariance[j * size + i] = after;
    }
  }
  return { names: belief.names, mean: moved(belief, gain, value - mean), covariance };
}

/**
 * Only that h theta + noise is above `bound`: the predictive density is cut there and moment-matched back
 * (assumed-density filtering; Minka 2001, chapter 3).
 */
export function updateWithLowerBound(
  belief: Belief,
  expected: Prediction,
  bound: number,
  noiseVariance: number,
): Belief {
  const variance = expected.variance + noiseVariance;
  const sd = Math.sqrt(variance);
  const cut = truncatedAbove((bound - expected.mean) / sd);
  const gain = gainOf(expected, variance);
  const size = gain.length;
  const lost = variance * (1 - cut.varianceFactor);
  const covariance = new Float64Array(size * size);
  for (let i = 0; i < size; i += 1) {
    for (let j = 0; j <= i; j += 1) {
      const after = (belief.covariance[i * size + j] ?? 0) - (gain[i] ?? 0) * (gain[j] ?? 0) * lost;
      covariance[i * size + j] = after;
      covariance[j * size + i] = after;
    }
  }
  return { names: belief.names, mean: moved(belief, gain, sd * cut.meanShift), covariance };
}

/** The named unknowns may have moved on their own since: their variances grow. */
export function addProcessNoise(
  belief: Belief,
  growth: readonly (readonly [name: string, variance: number])[],
): Belief {
  const covariance = belief.covariance.slice();
  const size = belief.names.length;
  for (const [name, variance] of growth) {
    const at = placeOf(belief, name) * (size + 1);
    if (at >= 0) covariance[at] = (covariance[at] ?? 0) + variance;
  }
  return { ...belief, covariance };
}

/** The belief about all but some unknowns: exactly what it held of the rest (a marginal of a Gaussian is a part of it). */
export function marginalWithout(belief: Belief, names: readonly string[]): Belief {
  const kept = belief.names.flatMap((name, i) => (names.includes(name) ? [] : [i]));
  const before = belief.names.length;
  if (kept.length === before) return belief;
  const covariance = new Float64Array(kept.length ** 2);
  kept.forEach((from, i) => {
    kept.forEach((to, j) => {
      covariance[i * kept.length + j] = belief.covariance[from * before + to] ?? 0;
    });
  });
  return {
    names: kept.map((i) => belief.names[i] ?? ''),
    mean: Float64Array.from(kept, (i) => belief.mean[i] ?? 0),
    covariance,
  };
}

/** The belief with one unknown re-defined as itself plus `factor` times another plus `shift`: theta' = A theta + b. */
export function redefined(belief: Belief, name: string, by: { other: string; factor: number; shift: number }): Belief {
  const [at, from] = [placeOf(belief, name), placeOf(belief, by.other)];
  if (at < 0 || from < 0) throw new RangeError(`redefined: nothing is known by the name ${at < 0 ? name : by.other}`);
  const size = belief.names.length;
  const mean = belief.mean.slice();
  const covariance = belief.covariance.slice();
  mean[at] = (mean[at] ?? 0) + by.factor * (mean[from] ?? 0) + by.shift;
  // A P A', first the row and then the column.
  for (let j = 0; j < size; j += 1) {
    covariance[at * size + j] = (covariance[at * size + j] ?? 0) + by.factor * (covariance[from * size + j] ?? 0);
  }
  for (let i = 0; i < size; i += 1) {
    covariance[i * size + at] = (covariance[i * size + at] ?? 0) + by.factor * (covariance[i * size + from] ?? 0);
  }
  return { ...belief, mean, covariance };
}
