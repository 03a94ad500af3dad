import { Matrix } from 'ml-matrix';
import { truncatedAbove } from './normal.ts';

/** A Gaussian belief over named unknowns: what the engine holds about the bar. Pure: every change gives a new belief. */
export interface Belief {
  readonly names: readonly string[];
  /** n x 1 */
  readonly mean: Matrix;
  /** n x n, symmetric and positive. */
  readonly covariance: Matrix;
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
  return {
    names: unknowns.map(({ name }) => name),
    mean: Matrix.columnVector(unknowns.map(({ mean }) => mean)),
    covariance: Matrix.diag(unknowns.map(({ sd }) => sd ** 2)),
  };
}

/** The belief with further unknowns, independent of what it held. */
export function withUnknowns(belief: Belief, unknowns: readonly Unknown[]): Belief {
  if (unknowns.length === 0) return belief;
  const before = belief.names.length;
  const size = before + unknowns.length;
  const mean = Matrix.zeros(size, 1);
  const covariance = Matrix.zeros(size, size);
  mean.setSubMatrix(belief.mean, 0, 0);
  covariance.setSubMatrix(belief.covariance, 0, 0);
  unknowns.forEach((unknown, i) => {
    mean.set(before + i, 0, unknown.mean);
    covariance.set(before + i, before + i, unknown.sd ** 2);
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
  return placed(belief, row).reduce((sum, [i, weight]) => sum + weight * belief.mean.get(i, 0), 0);
}

/** Covariance of what two rows observe, without observation noise. */
export function covarianceOf(belief: Belief, a: Row, b: Row): number {
  const columns = placed(belief, b);
  let sum = 0;
  for (const [i, left] of placed(belief, a)) {
    for (const [j, right] of columns) sum += left * right * belief.covariance.get(i, j);
  }
  return sum;
}

/** P h': the covariance of every unknown with what the row observes. Rows are short, so this is n times a handful. */
function covarianceWith(belief: Belief, row: Row): number[] {
  const columns = placed(belief, row);
  return belief.names.map((_, i) =>
    columns.reduce((sum, [j, weight]) => sum + weight * belief.covariance.get(i, j), 0),
  );
}

/** The belief moved by `shift` of its gain, with a new covariance given entry by entry and exactly symmetric. */
function updated(
  belief: Belief,
  gain: readonly number[],
  shift: number,
  entry: (before: number, i: number, j: number) => number,
): Belief {
  const mean = belief.mean.clone();
  const covariance = belief.covariance.clone();
  gain.forEach((share, i) => {
    mean.set(i, 0, mean.get(i, 0) + share * shift);
    for (let j = 0; j <= i; j += 1) {
      const value = entry(covariance.get(i, j), i, j);
      covariance.set(i, j, value);
      covariance.set(j, i, value);
    }
  });
  return { ...belief, mean, covariance };
}

/**
 * One observation h theta = value + noise: Kalman update in Joseph form, (I - K h) P (I - K h)' + K R K', written out for
 * one observation (Bierman 1977, section II).
 */
export function hearValue(belief: Belief, row: Row, value: number, noiseVariance: number): Belief {
  const pht = covarianceWith(belief, row);
  const variance = covarianceOf(belief, row, row);
  const gain = pht.map((covariance) => covariance / (variance + noiseVariance));
  return updated(belief, gain, value - meanOf(belief, row), (before, i, j) => {
    const [gainI = 0, gainJ = 0, phtI = 0, phtJ = 0] = [gain[i], gain[j], pht[i], pht[j]];
    return before - gainI * phtJ - (phtI - gainI * variance) * gainJ + gainI * noiseVariance * gainJ;
  });
}

/**
 * Only that h theta + noise is above `bound`: the predictive density is cut there and moment-matched back
 * (assumed-density filtering; Minka 2001, chapter 3).
 */
export function hearLowerBound(belief: Belief, row: Row, bound: number, noiseVariance: number): Belief {
  const variance = covarianceOf(belief, row, row) + noiseVariance;
  const sd = Math.sqrt(variance);
  const cut = truncatedAbove((bound - meanOf(belief, row)) / sd);
  const gain = covarianceWith(belief, row).map((covariance) => covariance / variance);
  const lost = variance * (1 - cut.varianceFactor);
  return updated(belief, gain, sd * cut.meanShift, (before, i, j) => before - (gain[i] ?? 0) * (gain[j] ?? 0) * lost);
}

/** The named unknowns may have moved on their own since: their variances grow. */
export function inflate(belief: Belief, growth: readonly (readonly [name: string, variance: number])[]): Belief {
  const covariance = belief.covariance.clone();
  for (const [name, variance] of growth) {
    const index = belief.names.indexOf(name);
    if (index >= 0) covariance.set(index, index, covariance.get(index, index) + variance);
  }
  return { ...belief, covariance };
}
