import fc from 'fast-check';
import { inverse, Matrix } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { engineDefaults } from './engineDefaults.ts';
import { drift, hearBound, hearShot, predict, priorModel, responseOf, type ResponseModel } from './responseModel.ts';

const prior = (): ResponseModel => priorModel({ level: Math.log(27), levelSd: 0.15, response: 0.09, responseSd: 0.03 });

function expectSound({ covariance }: ResponseModel): void {
  const [a, b, c, d] = [covariance.get(0, 0), covariance.get(0, 1), covariance.get(1, 0), covariance.get(1, 1)];
  expect(b).toBe(c);
  expect(a).toBeGreaterThan(0);
  expect(d).toBeGreaterThan(0);
  expect(a * d - b * c).toBeGreaterThan(0);
}

describe('the response model', () => {
  it('hears one shot as the textbook does', () => {
    // By hand, at x = 0: gain = 0.0225 / (0.0225 + 0.0025) = 0.9; residual 0.1 moves the level by 0.09, variance to 0.00225.
    const { model } = hearShot(prior(), { x: 0, lnT: Math.log(27) + 0.1, noiseVariance: 0.0025 });
    expect(model.mean.get(0, 0)).toBeCloseTo(Math.log(27) + 0.09, 12);
    expect(model.covariance.get(0, 0)).toBeCloseTo(0.00225, 12);
    expect(responseOf(model).perMark).toBe(0.09);
  });

  it('agrees with batch generalised least squares on the same shots', () => {
    const shots = [
      { x: 0, lnT: 3.22 },
      { x: 2, lnT: 3.4 },
      { x: 1, lnT: 3.33 },
      { x: 1, lnT: 3.35 },
    ];
    const noiseVariance = 0.003;
    const filtered = shots.reduce((model, shot) => hearShot(model, { ...shot, noiseVariance }).model, prior());

    const h = new Matrix(shots.map(({ x }) => [1, x]));
    const y = Matrix.columnVector(shots.map(({ lnT }) => lnT));
    const priorInformation = inverse(prior().covariance);
    const information = Matrix.add(priorInformation, Matrix.mul(h.transpose().mmul(h), 1 / noiseVariance));
    const covariance = inverse(information);
    const mean = covariance.mmul(
      Matrix.add(priorInformation.mmul(prior().mean), Matrix.mul(h.transpose().mmul(y), 1 / noiseVariance)),
    );
    for (const row of [0, 1]) {
      expect(filtered.mean.get(row, 0)).toBeCloseTo(mean.get(row, 0), 8);
      for (const column of [0, 1])
        expect(filtered.covariance.get(row, column)).toBeCloseTo(covariance.get(row, column), 8);
    }
  });

  it('trusts a shot that surprises less', () => {
    const near = hearShot(prior(), { x: 0, lnT: Math.log(28), noiseVariance: 0.003 });
    const far = hearShot(prior(), { x: 0, lnT: Math.log(10), noiseVariance: 0.003 });
    expect(near.weight).toBe(1);
    expect(far.weight).toBeLessThan(0.4);
  });

  it('takes a choke as a bound: slower and surer, never faster', () => {
    const choked = hearBound(prior(), { x: 0, lnBound: Math.log(45), noiseVariance: 0.003 });
    expect(choked.mean.get(0, 0)).toBeGreaterThan(Math.log(40));
    expect(choked.covariance.get(0, 0)).toBeLessThan(prior().covariance.get(0, 0));
    const known = hearBound(prior(), { x: 0, lnBound: Math.log(10), noiseVariance: 0.003 });
    expect(known.mean.get(0, 0)).toBeCloseTo(Math.log(27), 3);
  });

  it('agrees with plain sampling on what a bound teaches', () => {
    const lnBound = Math.log(32);
    const model = hearBound(prior(), { x: 0, lnBound, noiseVariance: 0.003 });
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
    expect(model.mean.get(0, 0)).toBeCloseTo(levelSum / weightSum, 3);
  });

  it('stays symmetric and positive whatever it hears', () => {
    const event = fc.record({
      x: fc.double({ min: -30, max: 30, noNaN: true }),
      lnT: fc.double({ min: 0, max: 5.2, noNaN: true }),
      choke: fc.boolean(),
      driftVariance: fc.double({ min: 0, max: 0.1, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(event, { minLength: 1, maxLength: 60 }), (events) => {
        let model = prior();
        for (const { x, lnT, choke, driftVariance } of events) {
          const noiseVariance = engineDefaults.shotSd ** 2;
          model = choke
            ? hearBound(model, { x, lnBound: lnT, noiseVariance })
            : hearShot(model, { x, lnT, noiseVariance }).model;
          model = drift(model, driftVariance);
          expectSound(model);
          expect(predict(model, x).sd).toBeGreaterThan(0);
        }
      }),
      { seed: 20260301, numRuns: 300 },
    );
  });
});
