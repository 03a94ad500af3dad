import { inverse, Matrix, EigenvalueDecomposition } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import {
  beliefOf,
  covarianceOf,
  predict,
  updateWithLowerBound,
  update,
  addProcessNoise,
  meanOf,
  withUnknowns,
  type Belief,
  type Row,
} from './belief.ts';
import { pseudoRandom } from './testCases.ts';

const LEVEL = 'level';
const SLOPE = 'slope';
const prior = (): Belief =>
  beliefOf([
    { name: LEVEL, mean: Math.log(27), sd: 0.15 },
    { name: SLOPE, mean: 0.09, sd: 0.03 },
  ]);
const at = (x: number) =>
  [
    [LEVEL, 1],
    [SLOPE, x],
  ] as const;

const hear = (belief: Belief, row: Row, value: number, noise: number): Belief =>
  update(belief, predict(belief, row), value, noise);
const bound = (belief: Belief, row: Row, atLeast: number, noise: number): Belief =>
  updateWithLowerBound(belief, predict(belief, row), atLeast, noise);

describe('a Gaussian belief', () => {
  it('hears one value as the textbook does', () => {
    // By hand, at x = 0: gain = 0.0225 / (0.0225 + 0.0025) = 0.9; residual 0.1 moves the level by 0.09, variance to 0.00225.
    const heard = hear(prior(), at(0), Math.log(27) + 0.1, 0.0025);
    expect(meanOf(heard, at(0))).toBeCloseTo(Math.log(27) + 0.09, 12);
    expect(covarianceOf(heard, at(0), at(0))).toBeCloseTo(0.00225, 12);
    expect(meanOf(heard, [[SLOPE, 1]])).toBe(0.09);
  });

  it('takes in further unknowns without touching what it held', () => {
    const wider = withUnknowns(hear(prior(), at(2), 3.4, 0.003), [{ name: 'group', mean: 0, sd: 0.03 }]);
    expect(covarianceOf(wider, [['group', 1]], at(2))).toBe(0);
    expect(covarianceOf(wider, [['group', 2]], [['group', 2]])).toBeCloseTo(4 * 0.0009, 12);
    expect(() => meanOf(wider, [['stranger', 1]])).toThrow('stranger');
  });

  it('agrees with batch generalised least squares on the same data, drift included, to 1e-8', () => {
    // The level wanders between observations: the batch method carries every moment's level as an unknown of its own.
    const random = pseudoRandom(11);
    const count = 40;
    const noise = Array.from({ length: count }, () => 0.002 + 0.004 * random());
    const steps = Array.from({ length: count }, () => 0.001 * random());
    const xs = Array.from({ length: count }, () => Math.round(8 * random() - 4));
    const values = Array.from({ length: count }, (_, i) => 3.3 + 0.1 * (xs[i] ?? 0) + 0.2 * random());

    let filtered = prior();
    for (let i = 0; i < count; i += 1) {
      filtered = addProcessNoise(filtered, [[LEVEL, steps[i] ?? 0]]);
      filtered = hear(filtered, at(xs[i] ?? 0), values[i] ?? 0, noise[i] ?? 1);
    }

    // Prior covariance of all levels (a random walk: shared variance up to the earlier moment) and of the slope.
    const walked = steps.map((_, i) => 0.15 ** 2 + steps.slice(0, i + 1).reduce((sum, step) => sum + step, 0));
    const priorCovariance = Matrix.zeros(count + 1, count + 1);
    for (let i = 0; i < count; i += 1) {
      for (let j = 0; j < count; j += 1) priorCovariance.set(i, j, walked[Math.min(i, j)] ?? 0);
    }
    priorCovariance.set(count, count, 0.03 ** 2);
    const design = new Matrix(
      xs.map((x, i) => Array.from({ length: count + 1 }, (_, k) => (k === i ? 1 : k === count ? x : 0))),
    );
    const observed = design.mmul(priorCovariance).mmul(design.transpose()).add(Matrix.diag(noise));
    const gain = priorCovariance.mmul(design.transpose()).mmul(inverse(observed));
    const priorMean = Matrix.columnVector([...xs.map(() => Math.log(27)), 0.09]);
    const posterior = Matrix.add(priorMean, gain.mmul(Matrix.columnVector(values).sub(design.mmul(priorMean))));
    const covariance = Matrix.sub(priorCovariance, gain.mmul(design).mmul(priorCovariance));

    const last = count - 1;
    expect(Math.abs(meanOf(filtered, [[LEVEL, 1]]) - posterior.get(last, 0))).toBeLessThan(1e-8);
    expect(Math.abs(meanOf(filtered, [[SLOPE, 1]]) - posterior.get(count, 0))).toBeLessThan(1e-8);
    for (const [a, b, i, j] of [
      [LEVEL, LEVEL, last, last],
      [LEVEL, SLOPE, last, count],
      [SLOPE, SLOPE, count, count],
    ] as const) {
      expect(Math.abs(covarianceOf(filtered, [[a, 1]], [[b, 1]]) - covariance.get(i, j))).toBeLessThan(1e-8);
    }
  });

  it('stays symmetric and positive over 100,000 updates of a whole bar', () => {
    const random = pseudoRandom(5);
    const names = ['dose', ...[1, 2, 3, 4].flatMap((g) => [`level ${g}`, `response ${g}`]), 'A', 'B', 'C', 'D', 'E'];
    let belief = beliefOf(names.map((name) => ({ name, mean: 0, sd: 0.3 })));
    for (let i = 0; i < 100_000; i += 1) {
      const grinder = 1 + Math.floor(4 * random());
      const row = [
        [`level ${grinder}`, 1],
        [`response ${grinder}`, Math.round(12 * random() - 6)],
        ['dose', 0.05 * (random() - 0.5)],
        [['A', 'B', 'C', 'D', 'E'][Math.floor(5 * random())] ?? 'A', 1],
      ] as const;
      const variance = random() < 0.01 ? 1e-12 : 0.003;
      belief =
        random() < 0.02 ? bound(belief, row, random() - 0.5, variance) : hear(belief, row, random() - 0.5, variance);
      if (i % 7 === 0) belief = addProcessNoise(belief, [[`level ${grinder}`, 0.001 * random()]]);
    }
    const size = belief.names.length;
    const covariance = Matrix.from1DArray(size, size, [...belief.covariance]);
    expect(covariance.isSymmetric()).toBe(true);
    const { realEigenvalues } = new EigenvalueDecomposition(covariance);
    expect(Math.min(...realEigenvalues)).toBeGreaterThan(0);
    expect(belief.mean.every(Number.isFinite)).toBe(true);
  }, 60_000);
});

describe('a lower bound', () => {
  it('makes it slower and surer, never faster, and tells nothing new when it was known', () => {
    const choked = bound(prior(), at(0), Math.log(45), 0.003);
    expect(meanOf(choked, at(0))).toBeGreaterThan(Math.log(40));
    expect(covarianceOf(choked, at(0), at(0))).toBeLessThan(0.15 ** 2);
    expect(meanOf(bound(prior(), at(0), Math.log(10), 0.003), at(0))).toBeCloseTo(Math.log(27), 3);
  });

  it('agrees with plain sampling on what it teaches', () => {
    const lnBound = Math.log(32);
    const heard = bound(prior(), at(0), lnBound, 0.003);
    // Slow and obvious: a fine grid over the level, weighted by prior and chance of exceeding the bound.
    let weightSum = 0;
    let levelSum = 0;
    for (let level = Math.log(27) - 1; level < Math.log(27) + 1; level += 0.0005) {
      const priorWeight = Math.exp(-0.5 * ((level - Math.log(27)) / 0.15) ** 2);
      const z = (lnBound - level) / Math.sqrt(0.003);
      const exceed = 0.5 - 0.5 * Math.tanh(0.7978845608 * (z + 0.044715 * z ** 3));
      weightSum += priorWeight * exceed;
      levelSum += level * priorWeight * exceed;
    }
    expect(meanOf(heard, at(0))).toBeCloseTo(levelSum / weightSum, 3);
  });
});
