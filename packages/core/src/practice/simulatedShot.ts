import { gaussian, type Random } from './random.ts';

/** What goes into one simulated shot. */
export interface ShotSetUp {
  doseG: number;
  /** ln of bed resistance against the bed that meets the recipe in the middle of its window. */
  lnResistance: number;
  /** ln T added by the group head. */
  groupEffect: number;
  recipe: { doseG: number; yieldG: number; timeS: { min: number; max: number } };
  random: Random;
}

/** A shot under way: stepped in time, stopped by whoever stands there. */
export interface ShotRun {
  /** Seconds since the pump started. */
  readonly timeS: number;
  /** Grams in the cup: what the scale would read without noise. */
  readonly massG: number;
  readonly channelled: boolean;
  /** Moves the shot on by `dtS` seconds. */
  step(dtS: number): void;
  stopPump(): void;
}

const DOSE_EXPONENT = 2.2;
const PERSON_SD = 0.045;
const CHANNEL_CHANCE = 0.03;
const CHANNEL_WITHIN_S = 8;
const CHANNEL_FLOW = 1.7;
/** The pump fills the headspace and soaks the bed before the first drop: a share fixed by the machine, a share by the bed. */
const SOAK_FIXED_S = 2.2;
const SOAK_SHARE = 0.14;
const SOAK_EXPONENT = 0.6;
const LONGEST_SHOT_S = 300;
const FINE_STEP_S = 0.05;
/** A bed loses resistance as it washes out: at the end of a shot it flows about a third faster than at its start. */
const WASH_OUT = 0.35;
/** Liquid between bed and cup that still falls after the pump stops. */
const DRIP_TIME_S = 0.75;

/**
 * A simulated shot by a person: noise of the hand, now and then a channel, and the physics of `startBed`.
 */
export function startShot(setUp: ShotSetUp): ShotRun {
  const { random } = setUp;
  const hand = PERSON_SD * gaussian(random);
  const channelAfterS = random() < CHANNEL_CHANCE ? random() * CHANNEL_WITHIN_S : Infinity;
  return startBed(setUp, setUp.lnResistance + setUp.groupEffect + hand, channelAfterS);
}

/**
 * The bed and the cup: soak, then Darcy flow q = k / R through a bed that washes out, then a drip that lags the bed. The
 * base flow is set so that a bed of ln resistance 0 with the recipe's dose lands in the middle of the window.
 */
function startBed(setUp: Pick<ShotSetUp, 'doseG' | 'recipe'>, lnResistance: number, channelAfterS: number): ShotRun {
  const { recipe } = setUp;
  const middleS = Math.sqrt(recipe.timeS.min * recipe.timeS.max);
  const resistance = Math.exp(lnResistance + DOSE_EXPONENT * Math.log(setUp.doseG / recipe.doseG));
  const nominalSoakS = SOAK_FIXED_S + SOAK_SHARE * middleS;
  const soakS = nominalSoakS * resistance ** SOAK_EXPONENT;
  // Mean of 1 + w m / Y over the shot, with w the wash-out: closed form of the yield integral.
  const washOutFactor = Math.log(1 + WASH_OUT) / WASH_OUT;
  const baseGps = (recipe.yieldG * washOutFactor) / (middleS - nominalSoakS - DRIP_TIME_S);
  const channelAtS = soakS + channelAfterS;

  let timeS = 0;
  let pumping = true;
  let throughG = 0;
  let massG = 0;
  return {
    get timeS() {
      return timeS;
    },
    get massG() {
      return massG;
    },
    get channelled() {
      return timeS > channelAtS;
    },
    step(dtS) {
      const flowing = pumping && timeS >= soakS;
      const channel = timeS > channelAtS ? CHANNEL_FLOW : 1;
      const flowGps = flowing ? ((baseGps * channel) / resistance) * (1 + (WASH_OUT * throughG) / recipe.yieldG) : 0;
      throughG += flowGps * dtS;
      massG += ((throughG - massG) * dtS) / (DRIP_TIME_S + dtS);
      timeS += dtS;
    },
    stopPump() {
      pumping = false;
    },
  };
}

/**
 * The truth that no scale shows: seconds to the recipe's yield with its dose, by a hand without noise.
 * Infinity where the bed chokes.
 */
export function trueTimeS(setUp: Pick<ShotSetUp, 'lnResistance' | 'groupEffect' | 'recipe'>): number {
  const { recipe } = setUp;
  const run = startBed({ doseG: recipe.doseG, recipe }, setUp.lnResistance + setUp.groupEffect, Infinity);
  // Stopped when what is in the cup and on its way makes the yield.
  const target = recipe.yieldG - DRIP_TIME_S * (recipe.yieldG / Math.sqrt(recipe.timeS.min * recipe.timeS.max));
  while (run.massG < target) {
    if (run.timeS > LONGEST_SHOT_S) return Infinity;
    run.step(FINE_STEP_S);
  }
  return run.timeS;
}

/** Reads like a bar scale: to 0.1 g, with a little noise. */
export function scaleReading(massG: number, random: Random): number {
  return Math.round((massG + 0.03 * gaussian(random)) * 10) / 10;
}

/** The whole shot at once, stopped when the cup shows `stopAtG` or after `maxS`; sampled at 10 Hz until the drip ends. */
export function pullShot(
  setUp: ShotSetUp,
  stop: { atG: number; maxS: number },
): { timeS: number; massG: number[]; channelled: boolean } {
  const STEP_S = 0.1;
  const DRIP_SAMPLES = 30;
  const run = startShot(setUp);
  const massG: number[] = [];
  while (run.massG < stop.atG && run.timeS < stop.maxS) {
    massG.push(scaleReading(run.massG, setUp.random));
    run.step(STEP_S);
  }
  const timeS = Math.round(run.timeS * 10) / 10;
  run.stopPump();
  for (let i = 0; i < DRIP_SAMPLES; i += 1) {
    massG.push(scaleReading(run.massG, setUp.random));
    run.step(STEP_S);
  }
  return { timeS, massG, channelled: run.channelled };
}
