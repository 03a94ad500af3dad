import type { AdviceCase, HeardShot, HouseEvent } from './adviceCase.ts';
import { marksFiner } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import { normalisedTime } from './normalisedTime.ts';
import { drift, hearBound, hearShot, priorModel, type ResponseModel } from './responseModel.ts';
import { grindThrough, oldShare, purgeAdviceG } from './retention.ts';

/** What the engine holds after hearing every shot of a case. */
export interface Learned {
  model: ResponseModel;
  /** Dial number at x = 0. */
  reference: number;
  /** One entry a shot, in order. */
  heard: HeardOutcome[];
}

export interface HeardOutcome {
  /** Normalised shot time in seconds; null where the shot is no number (channel, prep, choke). */
  normalisedS: number | null;
  /** Share of the dose that came from the setting before, 0..1. */
  oldShare: number;
  /** 0: not counted; 1: counted in full. */
  weight: number;
}

const MS_PER_HOUR = 3_600_000;

/**
 * Hears a case's shots one by one: where the grinder stands, what a mark is worth, and how sure both are.
 * Marks count from where it last held, or else from where the first shot was pulled.
 */
export function learn(input: AdviceCase, from: number): Learned {
  const reference = input.held?.setting ?? input.shots[0]?.setting ?? from;
  let model = startingModel(input);
  let held = { x: 0 };
  let lastAtMs: number | null = null;
  let lastSetting: number | null = null;
  const retentionG = input.retentionG ?? engineDefaults.retentionUnknownG;
  const heard: HeardOutcome[] = [];

  for (const shot of input.shots) {
    if (input.nowMs !== null && lastAtMs !== null && shot.atMs !== null) {
      model = drift(model, elapsedVariance(lastAtMs, shot.atMs, input.events));
    }
    const x = marksFiner(input.dial, shot.setting, reference);
    const moved = lastSetting !== null && lastSetting !== shot.setting;
    const purgedG = shot.purgedG ?? (moved ? purgeAdviceG(input.recipe.doseG, input.retentionG) : 0);
    if (lastSetting === null) held = { x };
    const shareOld = moved ? oldShare(shot.doseG, purgedG, retentionG) : 0;
    const outcome = hearOne(model, input, shot, x + (held.x - x) * oldShare(shot.doseG, purgedG, retentionG));
    model = outcome.model;
    heard.push({ normalisedS: outcome.normalisedS, oldShare: shareOld, weight: outcome.weight });
    held = grindThrough(held, x, purgedG + shot.doseG, retentionG);
    lastSetting = shot.setting;
    lastAtMs = shot.atMs ?? lastAtMs;
  }
  if (input.nowMs !== null && lastAtMs !== null) {
    model = drift(model, elapsedVariance(lastAtMs, input.nowMs, input.events));
  }
  return { model, reference, heard };
}

function startingModel({ recipe, secondsPerMark, since, held }: AdviceCase): ResponseModel {
  const d = engineDefaults;
  const middleS = windowMiddleS(recipe.timeS);
  const response = secondsPerMark === null ? d.responseUnknown : secondsPerMark / middleS;
  const relativeSd = secondsPerMark === null ? d.responseUnknownRelativeSd : d.responseRelativeSd;
  const levelVariance =
    since === null
      ? d.levelSdNever ** 2
      : d.levelSdAtLock ** 2 + d.driftSdPerRootHour ** 2 * since.hours + (since.newBag ? d.newBagSd ** 2 : 0);
  return priorModel({
    level: Math.log(held?.timeS ?? middleS),
    levelSd: Math.min(Math.sqrt(levelVariance), d.levelSdNever),
    response,
    responseSd: relativeSd * response,
  });
}

/** The window's middle on the log scale, where shot noise is even to both sides. */
export function windowMiddleS(timeS: { min: number; max: number }): number {
  return Math.sqrt(timeS.min * timeS.max);
}

function elapsedVariance(fromMs: number, toMs: number, events: readonly HouseEvent[]): number {
  const d = engineDefaults;
  const hours = Math.max(0, toMs - fromMs) / MS_PER_HOUR;
  const eventSd = { newBag: d.newBagSd, refill: d.refillSd, cleaned: d.cleanedSd, serviced: d.servicedSd };
  return events
    .filter((event) => event.atMs > fromMs && event.atMs <= toMs)
    .reduce((sum, event) => sum + eventSd[event.kind] ** 2, d.driftSdPerRootHour ** 2 * hours);
}

function hearOne(
  model: ResponseModel,
  input: AdviceCase,
  shot: HeardShot,
  x: number,
): { model: ResponseModel; normalisedS: number | null; weight: number } {
  const noiseVariance = engineDefaults.shotSd ** 2;
  if (shot.fault === 'channel' || shot.fault === 'prep') return { model, normalisedS: null, weight: 0 };
  if (shot.fault === 'choke') {
    const doseTerm = engineDefaults.doseExponent * Math.log(input.recipe.doseG / shot.doseG);
    const lnBound = Math.log(shot.timeS) + doseTerm;
    return { model: hearBound(model, { x, lnBound, noiseVariance }), normalisedS: null, weight: 1 };
  }
  const { lnT, correctionVariance } = normalisedTime(shot, input.recipe);
  const updated = hearShot(model, { x, lnT, noiseVariance: noiseVariance + correctionVariance });
  return { ...updated, normalisedS: Math.exp(lnT) };
}
