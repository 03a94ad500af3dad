import { mean, standardDeviation } from '../numbers/index.ts';
import { cleanTrace } from './cleanTrace.ts';
import { firstDropOf } from './firstDrop.ts';
import { slopeGps } from './flow.ts';
import type { MassTrace, Sign } from './trace.ts';

/** How the house's good shots begin on one station: ln of the early flow times the time to the first drop, and its sd. */
export interface GoodStart {
  mean: number;
  sd: number;
  shots: number;
}

/** Two shots tell no scatter. */
const FEWEST = 3;
/** A few shots tell little of it: no station's starts differ by less. */
const LEAST_SD = 0.06;
/** The early flow is read from here to there after the first drop. */
const FROM_S = 1;
const TO_S = 5;
/** So many sd beyond the good ones, and by at least this: then the water had found a way before there was a flow to compare. */
const SDS = 3;
const LEAST_LN = 0.28;
/** Where such a channel is said to have opened: with the first drops. */
const OPENED_AFTER_S = 1;

/**
 * ln of (early flow x time to the first drop). A sound bed that is twice as tight takes twice the time to soak and runs half
 * as fast (Darcy): the product stays, whatever the collar does. A way through the bed shows in the flow alone.
 * @returns null where the trace does not show it
 */
function startOf(massG: readonly number[], hz: number, firstDropS: number | null): number | null {
  if (firstDropS === null || !(firstDropS > 0)) return null;
  const from = Math.round((firstDropS + FROM_S) * hz);
  const to = Math.round((firstDropS + TO_S) * hz);
  if (to >= massG.length) return null;
  const flowGps = slopeGps(massG, from, to, hz);
  return flowGps > 0 ? Math.log(flowGps * firstDropS) : null;
}

/** How good shots of one station begin; null with fewer than three that show it. */
export function goodStart(traces: readonly MassTrace[]): GoodStart | null {
  const starts = traces.flatMap((trace) => {
    if (!trace.massG.some((mass) => mass !== null)) return [];
    const { massG, hz } = cleanTrace(trace);
    return startOf(massG, hz, firstDropOf(massG, hz)) ?? [];
  });
  if (starts.length < FEWEST) return null;
  return { mean: mean(starts), sd: Math.max(LEAST_SD, standardDeviation(starts)), shots: starts.length };
}

/** A channel that was open before there was a flow to compare with: told by the house's good shots. */
export function openedAtOnce(
  massG: readonly number[],
  hz: number,
  firstDropS: number | null,
  good: GoodStart,
): Sign | null {
  const start = startOf(massG, hz, firstDropS);
  if (start === null || firstDropS === null) return null;
  const sd = good.sd * Math.sqrt(1 + 1 / good.shots);
  return start - good.mean > Math.max(SDS * sd, LEAST_LN)
    ? { kind: 'channel', atS: firstDropS + OPENED_AFTER_S }
    : null;
}
