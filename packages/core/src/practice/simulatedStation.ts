import { gaussian, type Random, seededRandom, seedFrom, usual, sum } from '../numbers/index.ts';
import {
  grindThrough,
  marksFiner,
  oldShare,
  windowMiddleS,
  type Dial,
  type RecipeTarget,
  type Retained,
} from '../calibration/index.ts';
import type { StandingFacts } from '../facts/index.ts';
import { grinderTruth, groundG, lnResistance } from './simulatedGrinder.ts';
import { lnOfGroup } from './resistance.ts';
import type { ShotSetUp } from './simulatedShot.ts';
import { weather } from './surroundings.ts';

/** What a simulated grinder and group are made from: the house's own beliefs, and ids as seeds of the hidden truth. */
export interface StationSeed {
  siteId: string;
  groupId: string;
  grinder: {
    id: string;
    dial: Dial;
    seedSetting: number;
    secondsPerMark: number | null;
    rateGps: number | null;
  };
  recipe: RecipeTarget;
  /** The group's dispersion screen is clogged. */
  clogged?: boolean;
}

/** A screen clogged enough to be worth a story slows every shot through its group by about a quarter. */
const CLOGGED_LN = 0.26;

/** A grinder and a group of the simulated bar, as the facts so far have left them. */
export interface SimulatedStation {
  /** Grams that come out of a timed grind now. */
  grind(grindTimeS: number, random: Random): number;
  /** What a shot of `doseG` pulled now is made of. */
  shotSetUp(doseG: number, atMs: number, random: Random): ShotSetUp;
}

const TYPICAL_RESPONSE = 0.1;
/** Groups of one machine differ by a degree and a few percent of pressure, and by how clean their screens are. */
const GROUP = { tempC: 93, tempSdC: 1, pressureBar: 9, pressureLnSd: 0.03, screenSd: 0.01 };

/**
 * The simulated station after what stands: where its collar stands and what its chute still holds follow from
 * them, so a reload or another device meets the same station.
 */
export function simulatedStation(seed: StationSeed, facts: StandingFacts): SimulatedStation {
  const { grinder, recipe } = seed;
  const middleS = windowMiddleS(recipe.timeS);
  const truth = grinderTruth(grinder.id, {
    responsePerMark: grinder.secondsPerMark === null ? TYPICAL_RESPONSE : grinder.secondsPerMark / middleS,
    rateGps: grinder.rateGps ?? usual.grindRateGps,
  });
  const sound = lnOfGroup(groupHead(seed.groupId));
  const groupEffect = seed.clogged ? sound + CLOGGED_LN : sound;
  const ground = foldGrounds(facts, grinder, truth.retentionG);
  return {
    grind: (grindTimeS, random) => groundG(truth, grindTimeS, ground.x, random),
    shotSetUp: (doseG, atMs, random) => {
      const freshX = ground.x + (ground.held.x - ground.x) * oldShare(doseG, 0, truth.retentionG);
      return {
        doseG,
        lnResistance: lnResistance(truth, ground.weighedX ?? freshX) + weather(seed.siteId, atMs) + bagEffect(ground),
        groupEffect,
        recipe,
        random,
      };
    },
  };
}

/** Two bags of one roast differ by a few percent, two coffees by a good deal more. */
const BAG_SD = 0.04;
const COFFEE_SD = 0.15;

function bagEffect({ bagId, coffeeId }: Pick<Grounds, 'bagId' | 'coffeeId'>): number {
  const ofBag = bagId === null ? 0 : BAG_SD * gaussian(seededRandom(seedFrom(`bag ${bagId}`)));
  const ofCoffee = coffeeId === null ? 0 : COFFEE_SD * gaussian(seededRandom(seedFrom(`coffee ${coffeeId}`)));
  return ofBag + ofCoffee;
}

/** A group head of the simulated bar by its id: always the same one. */
const groupHead = (groupId: string) => drawGroup(seededRandom(seedFrom(`group ${groupId}`)));

/** Brew water of a group of the simulated bar once its machine is hot, °C. */
export const brewWaterC = (groupId: string): number => groupHead(groupId).tempC;

/** A group head's water and screen. */
export function drawGroup(random: Random): Parameters<typeof lnOfGroup>[0] {
  return {
    tempC: GROUP.tempC + GROUP.tempSdC * gaussian(random),
    pressureBar: GROUP.pressureBar * Math.exp(GROUP.pressureLnSd * gaussian(random)),
    lnScreen: Math.abs(GROUP.screenSd * gaussian(random)),
  };
}

interface Grounds {
  /** Where the collar stands, in marks finer than the seed setting. */
  x: number;
  /** What the chute holds. */
  held: Retained;
  /** Mean x of the dose that waits in the portafilter; null when none does. */
  weighedX: number | null;
  /** The bag in the hopper; null: the first, that the house's belief is about. */
  bagId: string | null;
  /** The coffee that took the place of the first; null: still the first. */
  coffeeId: string | null;
}

function foldGrounds(
  facts: StandingFacts,
  { id, dial, seedSetting }: StationSeed['grinder'],
  retentionG: number,
): Grounds {
  const start: Grounds = { x: 0, held: { x: 0 }, weighedX: null, bagId: null, coffeeId: null };
  const through = (state: Grounds, groundG: number): Retained => grindThrough(state.held, state.x, groundG, retentionG);
  const at = (setting: number): number => marksFiner(dial, setting, seedSetting);
  return facts.reduce((state, fact): Grounds => {
    if (fact.kind === 'step') {
      if (fact.body.step !== 'doseTime' || fact.body.grinderId !== id) return state;
      return { ...state, held: through(state, sum([fact.body.discardedG, ...fact.body.dosesG])) };
    }
    if (fact.grinderId !== id) return state;
    if (fact.kind === 'collarMove') return { ...state, x: at(fact.body.to) };
    if (fact.kind === 'purge') return { ...state, held: through(state, fact.body.purgeG) };
    if (fact.kind === 'dose') {
      const share = oldShare(fact.body.doseG, 0, retentionG);
      return {
        ...state,
        held: through(state, fact.body.doseG),
        weighedX: state.x + (state.held.x - state.x) * share,
      };
    }
    if (fact.kind === 'shot') {
      const x = at(fact.body.setting);
      const held = state.weighedX === null ? grindThrough(state.held, x, fact.body.doseG, retentionG) : state.held;
      return { ...state, x, held, weighedX: null };
    }
    if (fact.kind !== 'newBag') return state;
    const coffeeId = fact.body.otherCoffee ? (fact.body.coffeeId ?? fact.id) : state.coffeeId;
    return { ...state, bagId: fact.id, coffeeId };
  }, start);
}
