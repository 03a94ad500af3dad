import { engineDefaults, trendOver, type AdviceCase, type Wandering } from '../calibration/index.ts';
import { lnStudentT } from '../numbers/index.ts';

/**
 * Where a grinder stands in service, under one belief of how it wanders: level (ln T at the reference mark), response (per mark
 * finer) and trend (of the level, per hour), with their covariances.
 */
export interface LevelModel {
  wandering: Wandering;
  /** How probable this belief is by what was poured; the weights of a bank sum to 1. */
  weight: number;
  level: number;
  response: number;
  trend: number;
  levelVariance: number;
  responseVariance: number;
  trendVariance: number;
  levelResponse: number;
  levelTrend: number;
  responseTrend: number;
}

/** Mean ln T at x after so many more hours, and its variance. */
export function expectedAt(model: LevelModel, x: number, hours = 0): { mean: number; variance: number } {
  const now = model.levelVariance + 2 * model.levelResponse * x + model.responseVariance * x ** 2;
  const mean = model.level + model.response * x;
  if (hours === 0) return { mean, variance: Math.max(0, now) };
  const { walkSd, trendSd } = model.wandering;
  const { takenUp, levelVariance } = trendOver(hours);
  const withTrend =
    now + 2 * takenUp * (model.levelTrend + model.responseTrend * x) + model.trendVariance * takenUp ** 2;
  return {
    mean: mean + takenUp * model.trend,
    variance: Math.max(0, withTrend) + trendSd ** 2 * levelVariance + walkSd ** 2 * hours,
  };
}

/** What adds to the level between two moments beside its wandering: by how much it usually changes, ln T. */
export interface Between {
  hours: number;
  usual: number;
  /** Variance of what happened, bags apart; and how many bags went in. */
  jumped: number;
  bags: number;
}

/** The model some time later. */
export function wandered(model: LevelModel, { hours, usual, jumped, bags }: Between): LevelModel {
  const { walkSd, trendSd, bagSd } = model.wandering;
  const { takenUp, left, levelVariance, covariance, variance } = trendOver(hours);
  return {
    ...model,
    level: model.level + takenUp * model.trend + usual,
    trend: left * model.trend,
    levelVariance:
      model.levelVariance +
      2 * takenUp * model.levelTrend +
      takenUp ** 2 * model.trendVariance +
      trendSd ** 2 * levelVariance +
      walkSd ** 2 * hours +
      bagSd ** 2 * bags +
      jumped,
    levelResponse: model.levelResponse + takenUp * model.responseTrend,
    levelTrend: left * (model.levelTrend + takenUp * model.trendVariance) + trendSd ** 2 * covariance,
    responseTrend: left * model.responseTrend,
    trendVariance: left ** 2 * model.trendVariance + trendSd ** 2 * variance,
  };
}

/** One Kalman step; a surprise is trusted less, as where a morning is dialled in. Its weight is its own likelihood, not yet shared out. */
export function heard(model: LevelModel, x: number, lnT: number, shotVariance: number): LevelModel {
  const { mean, variance } = expectedAt(model, x);
  const off = lnT - mean;
  const degrees = off < 0 ? engineDefaults.fastDegreesOfFreedom : engineDefaults.slowDegreesOfFreedom;
  const foreseen = variance + shotVariance;
  const z = off / Math.sqrt(foreseen);
  const trust = Math.min(1, (degrees + 1) / (degrees + z ** 2));
  const total = variance + shotVariance / trust;
  const level = model.levelVariance + model.levelResponse * x;
  const response = model.levelResponse + model.responseVariance * x;
  const trend = model.levelTrend + model.responseTrend * x;
  return {
    ...model,
    weight: model.weight * Math.exp(lnStudentT(z, degrees) - 0.5 * Math.log(foreseen)),
    level: model.level + (level / total) * off,
    response: Math.max(model.response + (response / total) * off, engineDefaults.responseFloorShare * model.response),
    trend: model.trend + (trend / total) * off,
    levelVariance: model.levelVariance - level ** 2 / total,
    responseVariance: model.responseVariance - response ** 2 / total,
    trendVariance: model.trendVariance - trend ** 2 / total,
    levelResponse: model.levelResponse - (level * response) / total,
    levelTrend: model.levelTrend - (level * trend) / total,
    responseTrend: model.responseTrend - (response * trend) / total,
  };
}

/** What one knows before the first shot of where a grinder stands and what a mark is worth. */
export type Stands = Pick<LevelModel, 'level' | 'response' | 'levelVariance' | 'responseVariance' | 'levelResponse'>;

/** A model of a grinder that stands so, and wanders so. */
export const modelOf = (stands: Stands, wandering: Wandering, weight: number): LevelModel => ({
  ...stands,
  wandering,
  weight,
  trend: 0,
  trendVariance: wandering.trendSd ** 2,
  levelTrend: 0,
  responseTrend: 0,
});

/** Variance of what happened between two moments, and the bags among it. */
export function jumpsBetween({ events }: AdviceCase, fromMs: number, toMs: number): Pick<Between, 'jumped' | 'bags'> {
  const d = engineDefaults;
  const sdOf = {
    newBag: 0,
    newCoffee: d.levelSdNever,
    refill: d.refillSd,
    cleaned: d.cleanedSd,
    serviced: d.servicedSd,
  };
  const between = events.filter(({ atMs }) => atMs > fromMs && atMs <= toMs);
  return {
    jumped: between.reduce((sum, { kind }) => sum + sdOf[kind] ** 2, 0),
    bags: between.filter(({ kind }) => kind === 'newBag').length,
  };
}
