import { sum, usual } from '../numbers/index.ts';

/** What still falls after the stop, grams: the mean, and one sd of a single shot. */
export interface Drip {
  meanG: number;
  sdG: number;
  /** Shots that it was learned from. */
  count: number;
}

/** Before a group is known: the usual, give or take half of it. */
const GROUP_SD_G = 0.6;
/** One shot differs from the next on the same group by about this. */
const SHOT_SD_G = 0.4;
/** Only the newest shots: a gasket ages. */
const NEWEST = 20;

/**
 * The grams that drip after the stop, learned per group (normal mean with known sd, from the usual): what must be in the
 * cup at the stop so that the yield is met is the yield less this.
 * @param dripsG of the group's shots, oldest first; null where a trace did not show it
 */
export function learnedDrip(dripsG: readonly (number | null)[]): Drip {
  const seen = dripsG.filter((drip): drip is number => drip !== null && Number.isFinite(drip)).slice(-NEWEST);
  const priorWeight = 1 / GROUP_SD_G ** 2;
  const weight = 1 / SHOT_SD_G ** 2;
  const precision = priorWeight + weight * seen.length;
  const meanG = (usual.dripG * priorWeight + weight * sum(seen)) / precision;
  return { meanG, sdG: Math.sqrt(1 / precision + SHOT_SD_G ** 2), count: seen.length };
}

/** From the eye to the switch. */
const REACTION_S = 0.3;

/** Whether to stop now, so that the drip brings the cup to `yieldG`: the hand needs a moment, and the flow goes on. */
export function stopNow(massG: number, flowGps: number, drip: Pick<Drip, 'meanG'>, yieldG: number): boolean {
  return massG + REACTION_S * flowGps >= yieldG - drip.meanG;
}
