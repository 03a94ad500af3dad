import {
  grindThrough,
  marksFiner,
  oldShare,
  windowMiddleS,
  type AdviceCase,
  type Dial,
  type HeardShot,
  type RecipeTarget,
} from '../calibration/index.ts';
import { findFirstDropS, lastMassG } from '../capture/index.ts';
import { gaussian, seededRandom, type Random } from './random.ts';
import { pullShot, trueTimeS } from './simulatedShot.ts';

/** A morning at one grinder, drawn from a seed: what is true, and what the house believes. */
export interface DrawnMorning {
  believed: Omit<AdviceCase, 'shots' | 'standsAt' | 'purgedG'>;
  startSetting: number;
  random: Random;
  /** ln of bed resistance when ground wholly at this setting. */
  lnResistanceAt(setting: number): number;
  retentionG: number;
}

export interface MorningResult {
  shots: number;
  grams: number;
  moves: number;
  locked: boolean;
  /** Whether the setting that was left truly meets the window. */
  trulyInside: boolean;
}

/** What a way of working does after the shots so far. */
interface Turn {
  action: 'lock' | 'repeat' | 'move';
  setting: number;
  purgeG: number;
}
export type WayOfWorking = (input: AdviceCase, morning: DrawnMorning) => Turn;

const recipe: RecipeTarget = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 };
const dial: Dial = { stepMarks: 1, finer: 'down', range: null };
/** Where every drawn grinder stands at first. */
export const START = 30;
const MAX_SHOTS = 20;
const STOP_EARLY_G = 1.7;
const DOSE_SD_G = 0.12;
/** Half of all mornings follow a day on which the grinder held; the other half begin from nowhere. */
const HELD_CHANCE = 0.5;

/** Draws a morning: response, belief, retention and how far off it stands, from broad ranges of the trade. */
export function drawMorning(seed: number): DrawnMorning {
  const random = seededRandom(seed);
  const response = 0.09 * Math.exp(0.35 * gaussian(random));
  const curvature = 0.02 * gaussian(random);
  const held = random() < HELD_CHANCE;
  const offset = (held ? 0.12 : 0.3) * gaussian(random);
  const retentionG = 1 + 8 * random();
  const middleS = windowMiddleS(recipe.timeS);
  const secondsPerMark = response * middleS * Math.exp(0.3 * gaussian(random));
  return {
    random,
    retentionG,
    startSetting: START,
    lnResistanceAt: (setting) => {
      const x = marksFiner(dial, setting, START);
      return offset + response * x * (1 + curvature * x);
    },
    believed: {
      recipe,
      dial,
      secondsPerMark,
      retentionG: null,
      house: { sureness: 0.9, risk: 0.2 },
      since: held ? { newBag: false, hours: 14 } : null,
      held: null,
      nowMs: null,
      events: [],
    },
  };
}

/** Runs one way of working through a morning until it locks or twenty shots are gone. */
export function runMorning(morning: DrawnMorning, way: WayOfWorking): MorningResult {
  const shots: HeardShot[] = [];
  let setting = morning.startSetting;
  let heldLnR = morning.lnResistanceAt(setting);
  let purgedG = 0;
  let grams = 0;
  let moves = 0;
  while (shots.length < MAX_SHOTS) {
    const freshLnR = morning.lnResistanceAt(setting);
    const doseG = Math.round((recipe.doseG + DOSE_SD_G * gaussian(morning.random)) * 10) / 10;
    const lnResistance = freshLnR + (heldLnR - freshLnR) * oldShare(doseG, purgedG, morning.retentionG);
    shots.push(pullOne(morning, setting, doseG, lnResistance, purgedG));
    heldLnR = grindThrough({ x: heldLnR }, freshLnR, purgedG + doseG, morning.retentionG).x;
    grams += doseG;
    purgedG = 0;

    const turn = way({ ...morning.believed, shots, standsAt: setting, purgedG: 0 }, morning);
    if (turn.action === 'lock') return result(morning, shots, grams, moves, setting, true);
    if (turn.setting !== setting) moves += 1;
    setting = turn.setting;
    purgedG = turn.purgeG;
    grams += turn.purgeG;
  }
  return result(morning, shots, grams, moves, setting, false);
}

function pullOne(
  morning: DrawnMorning,
  setting: number,
  doseG: number,
  lnResistance: number,
  purgedG: number,
): HeardShot {
  const stop = { atG: recipe.yieldG - STOP_EARLY_G, maxS: 2.5 * recipe.timeS.max };
  const shot = pullShot({ doseG, lnResistance, groupEffect: 0, recipe, random: morning.random }, stop);
  const trace = { hz: 10, massG: shot.massG };
  const yieldG = Math.max(1, lastMassG(trace));
  const choked = shot.timeS >= stop.maxS;
  // Half of the channels can be seen; the other half pass for sound shots.
  const seen = shot.channelled && morning.random() < 0.5;
  const fault = choked ? 'choke' : seen ? 'channel' : null;
  return { atMs: null, setting, doseG, yieldG, timeS: shot.timeS, firstDropS: findFirstDropS(trace), purgedG, fault };
}

function result(
  morning: DrawnMorning,
  shots: readonly HeardShot[],
  grams: number,
  moves: number,
  setting: number,
  locked: boolean,
): MorningResult {
  const timeS = trueTimeS({ lnResistance: morning.lnResistanceAt(setting), groupEffect: 0, recipe });
  const trulyInside = timeS >= recipe.timeS.min && timeS <= recipe.timeS.max;
  return { shots: shots.length, grams, moves, locked, trulyInside };
}
