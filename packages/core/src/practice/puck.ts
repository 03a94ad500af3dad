/**
 * A bed of coffee under water, from pump start to the last drop, in closed form: any moment can be asked for without
 * stepping through the ones before, so that a shot with a trace and a shot without are the same shot.
 *
 *   through the bed   dM/dt = q0 (1 + M / W)           Darcy flow through a bed that washes out
 *   in the cup        dm/dt = (M - m) / tau            what hangs under the basket and in the spouts falls late
 *
 * A channel multiplies the flow from its moment on.
 */
export interface Puck {
  /** Seconds from pump start until water has filled the headspace and soaked the bed. */
  soakS: number;
  /** Flow when the first drop leaves the bed, g/s. */
  flowGps: number;
  /** Grams through the bed that double its flow. */
  washOutG: number;
  /** Time constant of the drip, seconds. */
  dripS: number;
  /** A channel opens this long after the soak; Infinity: a sound bed. */
  channelAfterS: number;
  /** Flow through the channelled bed over flow through the sound one. */
  channelFlow: number;
}

interface Moment {
  throughG: number;
  cupG: number;
}

/** One stretch of even growth: `through` and `cup` after `dtS` at relative growth `lambda` from `at`. */
function grow({ washOutG, dripS }: Puck, at: Moment, lambda: number, dtS: number): Moment {
  const swelled = (at.throughG + washOutG) * Math.exp(lambda * dtS);
  // Particular solution of the cup's equation for an exponential inflow, and the decaying rest.
  const share = 1 / (1 + lambda * dripS);
  const rest = at.cupG - ((at.throughG + washOutG) * share - washOutG);
  return { throughG: swelled - washOutG, cupG: swelled * share - washOutG + rest * Math.exp(-dtS / dripS) };
}

/** Grams through the bed and in the cup at `timeS` with the pump running. */
function whilePumping(puck: Puck, timeS: number): Moment {
  const flowingS = timeS - puck.soakS;
  const empty = { throughG: 0, cupG: 0 };
  if (flowingS <= 0) return empty;
  const lambda = puck.flowGps / puck.washOutG;
  const soundS = Math.min(flowingS, puck.channelAfterS);
  const sound = grow(puck, empty, lambda, soundS);
  return flowingS > soundS ? grow(puck, sound, lambda * puck.channelFlow, flowingS - soundS) : sound;
}

/** Grams in the cup at `timeS` when the pump stopped at `stopS` (Infinity: it runs). */
export function cupG(puck: Puck, timeS: number, stopS: number): number {
  const at = whilePumping(puck, Math.min(timeS, stopS));
  if (timeS <= stopS) return at.cupG;
  return at.throughG + (at.cupG - at.throughG) * Math.exp(-(timeS - stopS) / puck.dripS);
}

/** Grams that end up in the cup when the pump stops at `stopS`. */
export function finalG(puck: Puck, stopS: number): number {
  return whilePumping(puck, stopS).throughG;
}

const NEWTON_STEPS = 60;
const CLOSE_S = 1e-6;
const SLOPE_STEP_S = 1e-4;

/** Seconds until `of` the running shot reaches `grams`; Infinity when that takes longer than `maxS`. */
function timeTo(puck: Puck, grams: number, maxS: number, of: keyof Moment): number {
  if (whilePumping(puck, maxS)[of] < grams) return Infinity;
  let low = puck.soakS;
  let high = maxS;
  // Without drip and channel the answer is known; Newton from there, kept between what is surely too early and too late.
  let timeS = puck.soakS + (puck.washOutG / puck.flowGps) * Math.log1p(grams / puck.washOutG);
  for (let i = 0; i < NEWTON_STEPS; i += 1) {
    if (!(timeS > low && timeS < high)) timeS = (low + high) / 2;
    const off = whilePumping(puck, timeS)[of] - grams;
    if (off > 0) high = timeS;
    else low = timeS;
    const slope = (whilePumping(puck, timeS + SLOPE_STEP_S)[of] - grams - off) / SLOPE_STEP_S;
    const next = timeS - off / slope;
    if (Math.abs(next - timeS) < CLOSE_S || high - low < CLOSE_S) return next;
    timeS = next;
  }
  return timeS;
}

/** Seconds until the running shot shows `grams` in the cup; Infinity when that takes longer than `maxS`. */
export function timeToCupS(puck: Puck, grams: number, maxS: number): number {
  return timeTo(puck, grams, maxS, 'cupG');
}

/** Seconds after which a stopped shot ends at `grams`; Infinity when that takes longer than `maxS`. */
export function timeToFinalS(puck: Puck, grams: number, maxS: number): number {
  return timeTo(puck, grams, maxS, 'throughG');
}
