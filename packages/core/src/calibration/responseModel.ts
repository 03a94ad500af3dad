import { Matrix } from 'ml-matrix';
import { engineDefaults } from './engineDefaults.ts';
import { truncatedAbove } from './normal.ts';

/**
 * Two-parameter Gaussian model of one grinder with one coffee on one group:
 *
 *   ln T = level + response * x + noise
 *
 * level is ln T at the reference setting, response is ln T per mark finer, x is marks finer than the reference.
 */
export interface ResponseModel {
  /** 2 x 1: level, response. */
  readonly mean: Matrix;
  /** 2 x 2, symmetric and positive. */
  readonly covariance: Matrix;
  /** The response never falls below this: finer is never faster. */
  readonly responseFloor: number;
}

export interface Prediction {
  /** Expected ln T of the mean shot. */
  mean: number;
  /** Sd of the mean shot, without shot noise. */
  sd: number;
}

/** A model before today's first shot. */
export function priorModel(prior: {
  level: number;
  levelSd: number;
  response: number;
  responseSd: number;
}): ResponseModel {
  return {
    mean: Matrix.columnVector([prior.level, prior.response]),
    covariance: Matrix.diag([prior.levelSd ** 2, prior.responseSd ** 2]),
    responseFloor: engineDefaults.responseFloorShare * prior.response,
  };
}

/** What the model expects of the mean shot, `x` marks finer than the reference. */
export function predict(model: ResponseModel, x: number): Prediction {
  const h = Matrix.rowVector([1, x]);
  const response = Math.max(model.mean.get(1, 0), model.responseFloor);
  return {
    mean: model.mean.get(0, 0) + response * x,
    sd: Math.sqrt(Math.max(0, h.mmul(model.covariance).mmul(h.transpose()).get(0, 0))),
  };
}

/** The response in use: the learned one, kept above its floor. */
export function responseOf(model: ResponseModel): { perMark: number; sd: number } {
  return {
    perMark: Math.max(model.mean.get(1, 0), model.responseFloor),
    sd: Math.sqrt(model.covariance.get(1, 1)),
  };
}

/** Level doubt grows by `variance`: time, a new bag, a service. */
export function drift(model: ResponseModel, variance: number): ResponseModel {
  const covariance = model.covariance.clone();
  covariance.set(0, 0, covariance.get(0, 0) + variance);
  return { ...model, covariance };
}

/**
 * One shot heard: Kalman update in Joseph form, with the noise widened for a shot that surprises
 * (Student-t weight w = (nu + 1) / (nu + r^2 / S)).
 * @returns the updated model and the weight that the shot was given, 0..1.
 */
export function hearShot(
  model: ResponseModel,
  shot: { x: number; lnT: number; noiseVariance: number },
): { model: ResponseModel; weight: number } {
  const h = Matrix.rowVector([1, shot.x]);
  const pht = model.covariance.mmul(h.transpose());
  const priorVariance = h.mmul(pht).get(0, 0);
  const residual = shot.lnT - h.mmul(model.mean).get(0, 0);
  const nu = engineDefaults.robustDegreesOfFreedom;
  const surprise = residual ** 2 / (priorVariance + shot.noiseVariance);
  const weight = Math.min(1, (nu + 1) / (nu + surprise));
  const noise = shot.noiseVariance / weight;
  const gain = Matrix.mul(pht, 1 / (priorVariance + noise));
  const mean = Matrix.add(model.mean, Matrix.mul(gain, residual));
  const keep = Matrix.sub(Matrix.eye(2), gain.mmul(h));
  const covariance = keep
    .mmul(model.covariance)
    .mmul(keep.transpose())
    .add(Matrix.mul(gain.mmul(gain.transpose()), noise));
  return { model: { ...model, mean, covariance: symmetric(covariance) }, weight };
}

/**
 * A choked shot heard: only that ln T is above `lnBound`. The predictive density is cut at the bound and moment-matched
 * back (assumed-density filtering; Minka 2001, chapter 3).
 */
export function hearBound(
  model: ResponseModel,
  shot: { x: number; lnBound: number; noiseVariance: number },
): ResponseModel {
  const h = Matrix.rowVector([1, shot.x]);
  const pht = model.covariance.mmul(h.transpose());
  const variance = h.mmul(pht).get(0, 0) + shot.noiseVariance;
  const sd = Math.sqrt(variance);
  const cut = truncatedAbove((shot.lnBound - h.mmul(model.mean).get(0, 0)) / sd);
  const gain = Matrix.mul(pht, 1 / variance);
  const mean = Matrix.add(model.mean, Matrix.mul(gain, sd * cut.meanShift));
  const lost = variance * (1 - cut.varianceFactor);
  const covariance = Matrix.sub(model.covariance, Matrix.mul(gain.mmul(gain.transpose()), lost));
  return { ...model, mean, covariance: symmetric(covariance) };
}

/** Rounding makes the two off-diagonal entries drift apart over thousands of updates. */
function symmetric(matrix: Matrix): Matrix {
  return Matrix.add(matrix, matrix.transpose()).mul(0.5);
}
