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
/** The pump fills the headspace and soaks the bed before the first drop: a share fixed by the machine, a share by the bed. */
const SOAK_FIXED_S = 2.2;
const SOAK_SHARE = 0.14;
/** A bed loses resistance as it washes out: at the end of a shot it flows about a third faster than at its start. */
const WASH_OUT = 0.35;
/** Liquid between bed and cup that still falls after the pump stops. */
const DRIP_TIME_S = 0.75;

/**
 * A simulated shot: soak, then Darcy flow q = k / R through a bed that washes out, then a drip that lags the bed.
 * The base flow is set so that a bed of ln resistance 0 with the recipe's dose lands in the middle of the window.
 */
export function startShot(setUp: ShotSetUp): ShotRun {
  const { recipe, random } = setUp;
  const middleS = Math.sqrt(recipe.timeS.min * recipe.timeS.max);
  const lnR =
    setUp.lnResistance +
    setUp.groupEffect +
    DOSE_EXPONENT * Math.log(setUp.doseG / recipe.doseG) +
    PERSON_SD * gaussian(random);
  const resistance = Math.exp(lnR);
  const soakS = (SOAK_FIXED_S + SOAK_SHARE * middleS) * resistance ** 0.6;
  const nominalSoakS = SOAK_FIXED_S + SOAK_SHARE * middleS;
  // Mean of 1 + w m / Y over the shot, with w the wash-out: closed form of the yield integral.
  const washOutFactor = Math.log(1 + WASH_OUT) / WASH_OUT;
  const baseGps = (recipe.yieldG * washOutFactor) / (middleS - nominalSoakS - DRIP_TIME_S);
  const channelAtS = random() < CHANNEL_CHANCE ? soakS + random() * 8 : Infinity;

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
      const channel = timeS > channelAtS ? 1.7 : 1;
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
