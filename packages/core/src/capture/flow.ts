import { usual } from '../numbers/index.ts';
import { levelOf, type MassTrace } from './trace.ts';

/** Flow is read over this window: shorter is noise, longer hides a channel. */
const LIVE_WINDOW_S = 1.5;
const SMOOTH_WINDOW_S = 1.2;

/** Flow in g/s at each sample, over the last second and a half; 0 before there are enough samples, never below 0. */
export function flowGps({ hz, massG }: MassTrace): number[] {
  const back = Math.round(LIVE_WINDOW_S * hz);
  let lastG = 0;
  const filled = massG.map((mass) => (lastG = mass ?? lastG));
  return filled.map((mass, i) => (i < back ? 0 : Math.max(0, (mass - (filled[i - back] ?? 0)) / LIVE_WINDOW_S)));
}

/** Flow in g/s from sample `from` to sample `to`, both included: the slope of a straight line by least squares. */
export function slopeGps(massG: readonly number[], from: number, to: number, hz: number): number {
  const middle = (from + to) / 2;
  let cross = 0;
  let square = 0;
  for (let j = from; j <= to; j += 1) {
    cross += (j - middle) * (massG[j] ?? 0);
    square += (j - middle) ** 2;
  }
  return square > 0 ? (cross / square) * hz : 0;
}

/** Sd of one reading of the scale: second differences of a smooth curve are noise, with six times the variance of one. */
export function readingSdG(massG: readonly number[]): number {
  const MEDIAN_TO_SD = 1.4826;
  const seconds = massG.slice(1, -1).map((mass, i) => Math.abs((massG[i + 2] ?? 0) - 2 * mass + (massG[i] ?? 0)));
  return (MEDIAN_TO_SD * levelOf(seconds)) / Math.sqrt(6);
}

/** Flow in g/s at each sample from the samples around it; never below 0. */
export function smoothFlowGps(massG: readonly number[], hz: number): number[] {
  const reach = Math.max(1, Math.round((SMOOTH_WINDOW_S * hz) / 2));
  return massG.map((_, i) =>
    Math.max(0, slopeGps(massG, Math.max(0, i - reach), Math.min(massG.length - 1, i + reach), hz)),
  );
}

/** Grams to expect in the cup once the drip has ended, from what is in it at the stop and how fast it ran. */
export function expectedFinalG(trace: MassTrace): number {
  const lastG = trace.massG.findLast((mass) => mass !== null) ?? 0;
  return lastG + usual.dripS * (flowGps(trace).at(-1) ?? 0);
}
