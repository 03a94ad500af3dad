import {
  engineDefaults,
  fitCase,
  marksFiner,
  priorOf,
  usualShift,
  wanderings,
  type AdviceCase,
  type CaseFit,
  type Habit,
} from '../calibration/index.ts';
import { hoursBetween, MS_PER_HOUR } from '../numbers/index.ts';
import { dayNumbers } from './dayNumbers.ts';
import {
  expectedAt,
  heard,
  jumpsBetween,
  modelOf,
  wandered,
  type Between,
  type LevelModel,
  type Stands,
} from './levelModel.ts';

/** A bank of models side by side: the shots tell which of them fits (Magill 1965). */
export interface LevelBank {
  models: readonly LevelModel[];
  /** Dial number at x = 0. */
  reference: number;
  /** Variance between shots of one setting, ln T. */
  shotVariance: number;
  /** Mean ln T of a model at x after so many more hours, and its variance, with what this grinder usually does by then. */
  expectedAt: (model: LevelModel, x: number, hours?: number) => { mean: number; variance: number };
}

/** A shot or a look that the bank hears: seconds, noise and what lies between it and the one before. */
interface Heard extends Between {
  x: number;
  lnT: number;
  variance: number;
}

/** Models with less weight than this change no answer. */
const LEAST_WEIGHT = 0.003;

/** Hears every sound shot of a case, each model with its own wandering, and weighs the models by how well each foresaw them. */
export function levelBank(input: AdviceCase): LevelBank {
  const from = input.standsAt ?? input.shots.at(-1)?.setting ?? 0;
  const fit = fitCase(input, from);
  const { habit = null, nowMs } = input;
  const usually: Usually = (fromMs, toMs) =>
    habit === null || fromMs === null || toMs === null ? 0 : usualShift(habit, fromMs, toMs);
  const told = input.remembered ? asRemembered(input, fit, usually) : asPoured(input, fit, usually);
  const usualWeights = weightsOf(habit);
  let models = wanderings.map((wandering, i) => modelOf(told.stands, wandering, usualWeights[i] ?? 0));
  for (const shot of told.heard) {
    const { x, lnT, variance, hours } = shot;
    // What the days before taught of how it wanders is in the habit: their shots are not counted for it once more.
    const isOtherDay = habit !== null && hours > engineDefaults.habitPauseHours;
    const turned = isOtherDay ? 1 : turnedBy(hours);
    models = models.map((model, i) => ({
      ...model,
      weight: (1 - turned) * model.weight + turned * (usualWeights[i] ?? 0),
    }));
    models = weighed(models.map((model) => heard(wandered(model, shot), x, lnT, variance)));
  }
  const since = told.since;
  models = weighed(models.map((model) => wandered(model, since)).filter(({ weight }) => weight > LEAST_WEIGHT));
  return {
    models,
    reference: fit.reference,
    shotVariance: fit.line.shotVariance,
    expectedAt: (model, x, hours = 0) => {
      const { mean, variance } = expectedAt(model, x, hours);
      const usual = habit === null || hours === 0 || nowMs === null ? 0 : usually(nowMs, nowMs + hours * MS_PER_HOUR);
      return { mean: mean + usual, variance };
    },
  };
}

/**
 * How probable each belief of its wandering is before today's first shot. Restless days are believed, and what its bags did; quiet
 * weeks are not taken for a promise: what they rule out could not be seen on the day when an oven stands beside it.
 */
function weightsOf(habit: Habit | null): number[] {
  const usual = wanderings.map(({ chance }) => chance);
  const learned = habit?.before.weights ?? usual;
  if (wanderOf(learned) >= wanderOf(usual)) return [...learned];
  return wanderings.map(({ chance, bagSd }) => (chance * shareOfBag(learned, bagSd)) / shareOfBag(usual, bagSd));
}

/** Variance of ln T that an hour is believed to bring. */
const wanderOf = (weights: readonly number[]): number =>
  wanderings.reduce((sum, { walkSd, trendSd }, i) => sum + (weights[i] ?? 0) * (walkSd ** 2 + trendSd ** 2), 0);

const shareOfBag = (weights: readonly number[], bagSd: number): number =>
  wanderings.reduce((sum, one, i) => sum + (one.bagSd === bagSd ? (weights[i] ?? 0) : 0), 0);

/** By how much a grinder may wander otherwise after so many hours: beliefs that share their weight (Herbster and Warmuth 1998). */
const turnedBy = (hours: number): number => 1 - Math.exp(-hours / engineDefaults.wandersAlikeHours);

interface Told {
  stands: Stands;
  heard: Heard[];
  /** From the last of them until now. */
  since: Between;
}

type Usually = (fromMs: number | null, toMs: number | null) => number;

/** A case that is all there is: its own shots, from what the house says of a mark. */
function asPoured(input: AdviceCase, fit: CaseFit, usually: Usually): Told {
  const { level, response, levelSd, responseSd } = priorFor(input);
  const between = (fromMs: number | null, toMs: number | null): Between => ({
    ...timeBetween(fromMs, toMs, usually),
    ...(fromMs === null || toMs === null ? NOTHING : jumpsBetween(input, fromMs, toMs)),
  });
  let lastMs: number | null = null;
  const sound: Heard[] = [];
  for (const [i, shot] of input.shots.entries()) {
    const { normalisedS = null, oldShare = 1 } = fit.heard[i] ?? {};
    if (normalisedS === null || oldShare > engineDefaults.oldShareNotPurged || shot.fault !== null) continue;
    const x = marksFiner(input.dial, shot.setting, fit.reference);
    const variance = fit.line.shotVariance;
    sound.push({ ...between(lastMs, shot.atMs), x, lnT: Math.log(normalisedS), variance });
    lastMs = shot.atMs ?? lastMs;
  }
  return {
    stands: { level, response, levelVariance: levelSd ** 2, responseVariance: responseSd ** 2, levelResponse: 0 },
    heard: sound,
    since: between(lastMs ?? input.shots[0]?.atMs ?? null, input.nowMs),
  };
}

/** What time alone does between two moments; nothing where either is not known. */
const timeBetween = (
  fromMs: number | null,
  toMs: number | null,
  usually: Usually,
): Pick<Between, 'hours' | 'usual'> => ({
  hours: fromMs === null || toMs === null ? 0 : hoursBetween(fromMs, toMs),
  usual: usually(fromMs, toMs),
});

const NOTHING: Pick<Between, 'jumped' | 'bags'> = { jumped: 0, bags: 0 };

/** What the bar remembers: its newest shots and looks of this grinder, from what it held before them. */
function asRemembered({ remembered, nowMs }: AdviceCase, { line }: CaseFit, usually: Usually): Told {
  const { levelVariance, responseVariance, levelResponseCovariance } = line;
  // Where nothing was told one by one, what is held by now has all of it.
  const now = { level: 0, response: 0, levelVariance, responseVariance, levelResponse: levelResponseCovariance };
  const { before, shots, since } = remembered?.evidence ?? { before: now, shots: [], since: NOTHING };
  let lastMs: number | null = null;
  const between = (atMs: number | null, { jumped, bags }: Pick<Between, 'jumped' | 'bags'>): Between => {
    const fromMs = lastMs;
    lastMs = atMs;
    return { ...timeBetween(fromMs, atMs, usually), jumped, bags };
  };
  return {
    stands: { ...before, level: line.level + before.level, response: line.response + before.response },
    heard: shots.map(({ atMs, x, off, variance, ...jumps }) => ({
      ...between(atMs, jumps),
      x,
      lnT: line.level + line.response * x + off,
      variance,
    })),
    since: between(nowMs, since),
  };
}

/** What is believed before the first of the shots: what the house says of a mark; the level as it last held, or not at all. */
function priorFor(input: AdviceCase) {
  const prior = priorOf(input, input.since, input.held);
  const relativeSd = Math.max(dayNumbers.responseRelativeSd, prior.responseSd / prior.response);
  return { ...prior, responseSd: relativeSd * prior.response };
}

function weighed(models: readonly LevelModel[]): LevelModel[] {
  const total = models.reduce((sum, { weight }) => sum + weight, 0);
  return models.map((model) => ({ ...model, weight: model.weight / total }));
}
