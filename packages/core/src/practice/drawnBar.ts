import type { Measured } from '../facts/index.ts';
import { gaussian, seededRandom, type Random } from '../numbers/index.ts';
import {
  marksFiner,
  usualPolicy,
  windowMiddleS,
  type AdviceCase,
  type Dial,
  type RecipeTarget,
} from '../calibration/index.ts';
import { lnResistance } from './simulatedGrinder.ts';
import type { Hands } from './simulatedShot.ts';

/** What is true of a house that owns no scale: its level and its glass are off for good, and scatter from shot to shot; ln of grams. */
interface Measuring {
  measured: Measured;
  doseOff: number;
  doseSd: number;
  yieldOff: number;
  yieldSd: number;
  /** How well the glass is read. */
  readSd: number;
}

/** A grinder, the hands at it, and a recipe, drawn from a seed: what is true, and what the house believes. */
export interface DrawnStation {
  recipe: RecipeTarget;
  dial: Dial;
  startSetting: number;
  retentionG: number;
  hands: Hands;
  /** Where several take turns at it, shot by shot: who, and with which hands; absent: one pair of hands, nobody's in particular. */
  crew?: readonly { name: string; hands: Hands }[];
  doseSdG: number;
  /** How the house measures without a scale; absent: it has one. */
  measuring?: Measuring;
  random: Random;
  believed: Pick<AdviceCase, 'recipe' | 'dial' | 'secondsPerMark' | 'retentionG' | 'house' | 'since'>;
  /** ln of bed resistance when ground wholly at this setting, with the recipe's dose. */
  lnResistanceAt(setting: number): number;
}

/** Ranges with their sources stand in docs/engine.md. */
const RESPONSE_PER_STEP = { median: 0.085, lnSd: 0.4, least: 0.03, most: 0.2 };
const STEPLESS = { chance: 0.25, stepMarks: 0.1, perStepShare: 0.2 };
const CURVATURE_SD = 0.02;
const BELIEF_LN_SD = 0.3;
const RETENTION = { medianG: 3.5, lnSd: 0.6, leastG: 0.3, mostG: 10 };
/** Half of all mornings follow a day on which the grinder held; the others begin from nowhere. */
const HELD_CHANCE = 0.5;
const OFF_SD = { held: 0.12, never: 0.3 };
const NIGHT_HOURS = 14;
const START_SETTING = 30;

const between = (random: Random, least: number, most: number): number => least + (most - least) * random();
const logNormal = (random: Random, median: number, lnSd: number): number => median * Math.exp(lnSd * gaussian(random));
const clamp = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));

/** Draws a station as it is met on a morning, how far off included. */
export function drawStation(seed: number): DrawnStation {
  const random = seededRandom(seed);
  const recipe = drawRecipe(random);
  const perStep = clamp(
    logNormal(random, RESPONSE_PER_STEP.median, RESPONSE_PER_STEP.lnSd),
    RESPONSE_PER_STEP.least,
    RESPONSE_PER_STEP.most,
  );
  const stepless = random() < STEPLESS.chance;
  const dial: Dial = {
    stepMarks: stepless ? STEPLESS.stepMarks : 1,
    finer: random() < 0.5 ? 'down' : 'up',
    range: null,
  };
  const perMark = stepless ? (perStep * STEPLESS.perStepShare) / STEPLESS.stepMarks : perStep;
  const curvature = (CURVATURE_SD * gaussian(random) * perMark) / perStep;
  const held = random() < HELD_CHANCE;
  const off = (held ? OFF_SD.held : OFF_SD.never) * gaussian(random);
  const truth = { sizePerMark: perMark / 2, curvature, idealX: -off / perMark };
  return {
    recipe,
    dial,
    random,
    startSetting: START_SETTING,
    retentionG: clamp(logNormal(random, RETENTION.medianG, RETENTION.lnSd), RETENTION.leastG, RETENTION.mostG),
    hands: {
      prepSd: between(random, 0.04, 0.075),
      channelChance: between(random, 0.01, 0.05),
      channelSeen: 0.5,
    },
    doseSdG: between(random, 0.05, 0.18),
    lnResistanceAt: (setting) => lnResistance(truth, marksFiner(dial, setting, START_SETTING)),
    believed: {
      recipe,
      dial,
      secondsPerMark: perMark * windowMiddleS(recipe.timeS) * Math.exp(BELIEF_LN_SD * gaussian(random)),
      retentionG: null,
      house: usualPolicy,
      since: held ? { newBag: false, hours: NIGHT_HOURS } : null,
    },
  };
}

function drawRecipe(random: Random): RecipeTarget {
  const doseG = Math.round(between(random, 17, 20) * 2) / 2;
  const min = Math.round(between(random, 23, 27));
  return {
    doseG,
    yieldG: Math.round(doseG * between(random, 1.9, 2.3)),
    timeS: { min, max: min + 5 },
    doseToleranceG: 0.3,
  };
}
