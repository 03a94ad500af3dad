import { engineDefaults, fitCase, marksFiner, priorOf, type AdviceCase, type CaseFit } from '../calibration/index.ts';
import { MS_PER_HOUR } from '../numbers/index.ts';
import { dayNumbers } from './dayNumbers.ts';

/**
 * Where a grinder stands in service, under one belief of how much it wanders: level and response (ln T at the reference mark,
 * and per mark finer) with their covariance.
 */
export interface LevelModel {
  /** Sd of ln T per root hour, and what another bag may do to it. */
  walkSd: number;
  bagSd: number;
  /** How probable this belief is by what was poured; the weights of a bank sum to 1. */
  weight: number;
  level: number;
  response: number;
  levelVariance: number;
  covariance: number;
  responseVariance: number;
}

/** A bank of such models side by side: the day's own shots tell which of them fits (Magill 1965). */
export interface LevelBank {
  models: readonly LevelModel[];
  /** Dial number at x = 0. */
  reference: number;
  /** Variance between shots of one setting, ln T. */
  shotVariance: number;
}

/** Mean ln T at x, and its variance after so many more hours. */
export function expectedAt(model: LevelModel, x: number, hours = 0): { mean: number; variance: number } {
  return {
    mean: model.level + model.response * x,
    variance:
      Math.max(0, model.levelVariance + 2 * model.covariance * x + model.responseVariance * x ** 2) +
      model.walkSd ** 2 * hours,
  };
}

/** Hears every sound shot of a case, each model with its own wandering, and weighs the models by how well each foresaw them. */
export function levelBank(input: AdviceCase): LevelBank {
  const from = input.standsAt ?? input.shots.at(-1)?.setting ?? 0;
  const fit = fitCase(input, from);
  const { shotVariance } = fit.line;
  const { reference } = fit;
  if (input.remembered !== null) return { models: asRemembered(fit), reference, shotVariance };
  const prior = priorFor(input);
  let models: LevelModel[] = dayNumbers.walks.flatMap((walk) =>
    dayNumbers.bags.map((bag) => ({
      walkSd: walk.sdPerRootHour,
      bagSd: bag.sd,
      weight: walk.chance * bag.chance,
      level: prior.level,
      response: prior.response,
      levelVariance: prior.levelSd ** 2,
      covariance: 0,
      responseVariance: prior.responseSd ** 2,
    })),
  );
  let lastMs: number | null = null;
  const wander = (untilMs: number | null): void => {
    if (lastMs !== null && untilMs !== null) {
      const since = lastMs;
      models = models.map((model) => wandered(model, since, untilMs, input));
    }
    lastMs = untilMs ?? lastMs;
  };
  for (const [i, shot] of input.shots.entries()) {
    const outcome = fit.heard[i];
    wander(shot.atMs);
    const sound = outcome?.normalisedS != null && outcome.oldShare <= engineDefaults.oldShareNotPurged;
    if (!sound || outcome.normalisedS === null || shot.fault !== null) continue;
    const x = marksFiner(input.dial, shot.setting, reference);
    const lnT = Math.log(outcome.normalisedS);
    models = weighed(models.map((model) => heard(model, x, lnT, shotVariance)));
  }
  wander(input.nowMs);
  return { models, reference, shotVariance };
}

/** What the bar remembers has heard every shot already, and wandered since: each model goes on from there. */
const asRemembered = ({ line }: CaseFit): LevelModel[] =>
  dayNumbers.walks.flatMap((walk) =>
    dayNumbers.bags.map((bag) => ({
      walkSd: walk.sdPerRootHour,
      bagSd: bag.sd,
      weight: walk.chance * bag.chance,
      level: line.level,
      response: line.response,
      levelVariance: line.levelVariance,
      covariance: line.levelResponseCovariance,
      responseVariance: line.responseVariance,
    })),
  );

/** What is believed before the first of the shots: what the house says of a mark; the level as it last held, or not at all. */
function priorFor(input: AdviceCase) {
  const prior = priorOf(input, input.since, input.held);
  const relativeSd = Math.max(dayNumbers.responseRelativeSd, prior.responseSd / prior.response);
  return { ...prior, responseSd: relativeSd * prior.response };
}

function wandered(model: LevelModel, fromMs: number, toMs: number, { events }: AdviceCase): LevelModel {
  const hours = Math.max(0, toMs - fromMs) / MS_PER_HOUR;
  const d = engineDefaults;
  const sdOf = {
    newBag: model.bagSd,
    newCoffee: d.levelSdNever,
    refill: d.refillSd,
    cleaned: d.cleanedSd,
    serviced: d.servicedSd,
  };
  const jumps = events
    .filter(({ atMs }) => atMs > fromMs && atMs <= toMs)
    .reduce((sum, { kind }) => sum + sdOf[kind] ** 2, 0);
  return { ...model, levelVariance: model.levelVariance + model.walkSd ** 2 * hours + jumps };
}

/** ln of the density of Student's t, up to what is the same for all of one number of degrees. */
const lnT = (z: number, degrees: number): number => -((degrees + 1) / 2) * Math.log1p(z ** 2 / degrees);

/** One Kalman step; a surprise is trusted less, as where a morning is dialled in. Its weight is its own likelihood, not yet shared out. */
function heard(model: LevelModel, x: number, observed: number, shotVariance: number): LevelModel {
  const { mean, variance } = expectedAt(model, x);
  const off = observed - mean;
  const degrees = off < 0 ? engineDefaults.fastDegreesOfFreedom : engineDefaults.slowDegreesOfFreedom;
  const foreseen = variance + shotVariance;
  const z = off / Math.sqrt(foreseen);
  const trust = Math.min(1, (degrees + 1) / (degrees + z ** 2));
  const total = variance + shotVariance / trust;
  const gainLevel = (model.levelVariance + model.covariance * x) / total;
  const gainResponse = (model.covariance + model.responseVariance * x) / total;
  const atX = {
    level: model.levelVariance + model.covariance * x,
    response: model.covariance + model.responseVariance * x,
  };
  return {
    ...model,
    weight: model.weight * Math.exp(lnT(z, degrees) - 0.5 * Math.log(foreseen)),
    level: model.level + gainLevel * off,
    response: Math.max(model.response + gainResponse * off, engineDefaults.responseFloorShare * model.response),
    levelVariance: model.levelVariance - gainLevel * atX.level,
    covariance: model.covariance - gainLevel * atX.response,
    responseVariance: model.responseVariance - gainResponse * atX.response,
  };
}

function weighed(models: readonly LevelModel[]): LevelModel[] {
  const total = models.reduce((sum, { weight }) => sum + weight, 0);
  return models.map((model) => ({ ...model, weight: model.weight / total }));
}
