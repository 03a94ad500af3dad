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

/** The row by place instead of by name. @throws RangeError when it names something that the belief does not hold. */
function placed(belief: Belief, row: Row): [index: number, weight: number][] {
  return row.map(([name, weight]) => {
    const index = belief.names.indexOf(name);
    if (index < 0) throw new RangeError(`belief: nothing is known by the name ${name}`);
    return [index, weight];
  });
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
export interface Expectation {
  mean: number;
  /** Variance without observation noise: h P h'. */
  variance: number;
  /** P h': covariance of every unknown with what is observed. */
  withAll: readonly number[];
}

/** Expects what the row observes. Rows are short, so this is n times a handful. */
export function expectationOf(belief: Belief, row: Row): Expectation {
  const columns = placed(belief, row);
  const { covariance } = belief;
  const size = belief.names.length;
  const withAll: number[] = [];
  for (let i = 0; i < size; i += 1) {
    let sum = 0;
    for (const [j, weight] of columns) sum += weight * (covariance[i * size + j] ?? 0);
    withAll.push(sum);
  }
  let [mean, variance] = [0, 0];
  for (const [j, weight] of columns) {
    mean += weight * (belief.mean[j] ?? 0);
    variance += weight * (withAll[j] ?? 0);
  }
  return { mean, variance, withAll };
}

/** The belief moved by `shift` of its gain, with a new covariance given entry by entry and exactly symmetric. */
function updated(
  belief: Belief,
  gain: readonly number[],
  shift: number,
  entry: (before: number, i: number, j: number) => number,
): Belief {
  const size = gain.length;
  const mean = belief.mean.map((before, i) => before + (gain[i] ?? 0) * shift);
  const covariance = new Float64Array(size * size);
  for (let i = 0; i < size; i += 1) {
    for (let j = 0; j <= i; j += 1) {
      const value = entry(belief.covariance[i * size + j] ?? 0, i, j);
      covariance[i * size + j] = value;
      covariance[j * size + i] = value;
    }
  }
  return { ...belief, mean, covariance };
}

/**
 * One observation h theta = value + noise: Kalman update in Joseph form, (I - K h) P (I - K h)' + K R K', written out for
 * one observation (Bierman 1977, section II).
 */
export function hearValue(belief: Belief, expected: Expectation, value: number, noiseVariance: number): Belief {
  const { withAll, variance, mean } = expected;
  const gain = withAll.map((covariance) => covariance / (variance + noiseVariance));
  return updated(belief, gain, value - mean, (before, i, j) => {
    const gainI = gain[i] ?? 0;
    const gainJ = gain[j] ?? 0;
    return (
      before -
      gainI * (withAll[j] ?? 0) -
      ((withAll[i] ?? 0) - gainI * variance) * gainJ +
      gainI * noiseVariance * gainJ
    );
  });
}

/**
 * Only that h theta + noise is above `bound`: the predictive density is cut there and moment-matched back
 * (assumed-density filtering; Minka 2001, chapter 3).
 */
export function hearLowerBound(belief: Belief, expected: Expectation, bound: number, noiseVariance: number): Belief {
  const variance = expected.variance + noiseVariance;
  const sd = Math.sqrt(variance);
  const cut = truncatedAbove((bound - expected.mean) / sd);
  const gain = expected.withAll.map((covariance) => covariance / variance);
  const lost = variance * (1 - cut.varianceFactor);
  return updated(belief, gain, sd * cut.meanShift, (before, i, j) => before - (gain[i] ?? 0) * (gain[j] ?? 0) * lost);
}

/** The named unknowns may have moved on their own since: their variances grow. */
export function addProcessNoise(
  belief: Belief,
  growth: readonly (readonly [name: string, variance: number])[],
): Belief {
  const covariance = belief.covariance.slice();
  const size = belief.names.length;
  for (const [name, variance] of growth) {
    const at = belief.names.indexOf(name) * (size + 1);
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
  const [at, from] = [belief.names.indexOf(name), belief.names.indexOf(by.other)];
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
