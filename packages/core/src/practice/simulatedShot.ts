import { gaussian, type Random } from '../numbers/index.ts';
import type { RecipeTarget } from '../calibration/index.ts';
import { cupG, finalG, timeToCupS, type Puck } from './puck.ts';
import { lnOfDose, puckOf } from './resistance.ts';

/** The hands at work: how evenly they prepare a puck, and how often water finds a way through it. */
export interface Hands {
  /** Sd of ln of resistance from puck to puck. */
  prepSd: number;
  channelChance: number;
  /** Share of the channels that somebody sees. */
  channelSeen: number;
}

const carefulHands: Hands = { prepSd: 0.045, channelChance: 0.03, channelSeen: 1 };

/** What goes into one simulated shot. */
export interface ShotSetUp {
  doseG: number;
  /** ln of bed resistance at the recipe's dose, against the bed that meets the recipe in the middle of its window. */
  lnResistance: number;
  /** ln of resistance added by the group head. */
  groupEffect: number;
  recipe: Pick<RecipeTarget, 'doseG' | 'yieldG' | 'timeS'>;
  hands?: Hands;
  random: Random;
}

/** When the pump stops: when the cup shows `atG`, or after `maxS`. */
export interface StopRule {
  atG: number;
  maxS: number;
}

/** What a person with a scale and a timer would write down; seconds and grams without their rounding. */
export interface ShotReading {
  timeS: number;
  yieldG: number;
  firstDropS: number;
  /** The water broke through before the pump stopped. */
  channelled: boolean;
  /** Whether somebody saw it. */
  channelSeen: boolean;
}

/** A channel that somebody can see opens in the middle of the shot and shows in its flow... */
const SEEN_CHANNEL = { fromS: 2.5, withinS: 9, leastFlow: 1.35, flowRange: 0.85 };
/** ...one that nobody sees opened while the bed soaked: the shot is just fast. */
const UNSEEN_CHANNEL = { fromS: 0, withinS: 1, leastFlow: 1.1, flowRange: 0.5 };
/** One drop of coffee. */
const DROP_G = 0.05;
/** Samples a second of a bar scale. */
const SCALE_HZ = 10;
const SCALE_SD_G = 0.03;
/** The scale is read on until the last drops have fallen. */
const DRIP_SAMPLES = 30;

interface DrawnShot {
  puck: Puck;
  channelSeen: boolean;
}

/** Draws the puck of a shot by a person: noise of the hands, now and then a channel. */
function drawShot(setUp: ShotSetUp): DrawnShot {
  const { random, recipe, hands = carefulHands } = setUp;
  const prep = hands.prepSd * gaussian(random);
  const channelled = random() < hands.channelChance;
  const channelSeen = random() < hands.channelSeen;
  const channel = channelSeen ? SEEN_CHANNEL : UNSEEN_CHANNEL;
  const afterS = channel.fromS + channel.withinS * random();
  const flow = channel.leastFlow + channel.flowRange * random();
  const lnResistance = setUp.lnResistance + setUp.groupEffect + lnOfDose(setUp.doseG, recipe.doseG) + prep;
  return { puck: puckOf(recipe, lnResistance, channelled ? { afterS, flow } : undefined), channelSeen };
}

function readingOf({ puck, channelSeen }: DrawnShot, stop: StopRule): ShotReading {
  const timeS = Math.min(stop.maxS, timeToCupS(puck, stop.atG, stop.maxS));
  const channelled = timeS > puck.soakS + puck.channelAfterS;
  return {
    timeS,
    yieldG: finalG(puck, timeS),
    firstDropS: Math.min(timeS, timeToCupS(puck, DROP_G, stop.maxS)),
    channelled,
    channelSeen: channelled && channelSeen,
  };
}

/** The whole shot at once, without a trace: what the scale and the timer of `pullShot` would have said. */
export function pullShotFast(setUp: ShotSetUp, stop: StopRule): ShotReading {
  return readingOf(drawShot(setUp), stop);
}

/** The whole shot with the scale's readings, sampled from pump start until the drip has ended. */
export function pullShot(setUp: ShotSetUp, stop: StopRule): ShotReading & { massG: number[] } {
  const drawn = drawShot(setUp);
  const reading = readingOf(drawn, stop);
  const samples = Math.ceil(reading.timeS * SCALE_HZ) + DRIP_SAMPLES;
  const massG = Array.from({ length: samples }, (_, i) =>
    scaleReading(cupG(drawn.puck, i / SCALE_HZ, reading.timeS), setUp.random),
  );
  return { ...reading, massG };
}

/** A shot under way, stopped by whoever stands there. */
export interface ShotRun {
  /** Grams in the cup `timeS` after pump start: what the scale would read without noise. */
  cupG(timeS: number): number;
  stopPump(timeS: number): void;
}

export function startShot(setUp: ShotSetUp): ShotRun {
  const { puck } = drawShot(setUp);
  let stopS = Infinity;
  return {
    cupG: (timeS) => cupG(puck, timeS, stopS),
    stopPump: (timeS) => {
      stopS = Math.min(stopS, timeS);
    },
  };
}

/** Reads like a bar scale: to 0.1 g, with a little noise. */
export function scaleReading(massG: number, random: Random): number {
  return Math.round((massG + SCALE_SD_G * gaussian(random)) * 10) / 10;
}
