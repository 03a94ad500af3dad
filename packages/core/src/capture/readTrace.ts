import { cleanTrace } from './cleanTrace.ts';
import { firstDropOf } from './firstDrop.ts';
import { smoothFlowGps } from './flow.ts';
import { chokeOf, suddenFlow } from './flowSigns.ts';
import { openedAtOnce, type GoodStart } from './goodStart.ts';
import { levelOf, type MassTrace, type Sign } from './trace.ts';

/** What a whole trace says. Seconds from pump start, grams. */
export interface TraceReading {
  /** Null: no drop fell. */
  firstDropS: number | null;
  /** Null: the trace does not show a stop. */
  stopS: number | null;
  /** Grams in the cup after the last drop; of a partial trace what is known of it. */
  yieldG: number;
  /** Grams that fell after the stop; null when the stop or the end was not seen. */
  afterDripG: number | null;
  peakFlowGps: number;
  /** Something of the shot is missing: a long gap, a cup lifted early, a trace that ends before the drip did. */
  partial: boolean;
  signs: Sign[];
}

/** A gap longer than this hides a part of the shot. */
const HIDING_GAP_S = 2;
/** The drip is over once less than this comes in a second. */
const STILL_GPS = 0.3;

/**
 * Reads a shot's trace: first drop, stop, yield, after-drip, peak flow and every sign on the way.
 * @param pumpOffS when the machine knows it; null: found where the flow breaks off
 * @param good how good shots of this station begin, where three of them are known
 * @throws RangeError when the rate is not positive or there is no sample at all.
 */
export function readTrace(trace: MassTrace & { pumpOffS: number | null }, good: GoodStart | null = null): TraceReading {
  const { hz, pumpOffS } = trace;
  if (!(hz > 0)) throw new RangeError(`readTrace: hz must be above 0, got ${hz}`);
  if (!trace.massG.some((mass) => mass !== null)) throw new RangeError('readTrace: the trace holds no sample');
  const { massG, signs, bridgedS, longestGapS } = cleanTrace(trace);
  const firstDropS = firstDropOf(massG, hz);
  const flowGps = smoothFlowGps(massG, hz);
  const endS = (massG.length - 1) / hz;
  const stopS = pumpOffS ?? breakOffS(flowGps, hz, firstDropS);
  const shownUntilS = Math.min(stopS ?? endS, endS);

  const emptyG = levelOf(massG.slice(0, Math.max(1, Math.round(hz))));
  const endG = levelOf(massG.slice(-Math.max(1, Math.round(hz / 2))));
  const atStopG = massG[Math.round(shownUntilS * hz)] ?? endG;
  const lifted = signs.some(({ kind }) => kind === 'cupLifted');
  const stillFalls = (flowGps.at(-1) ?? 0) > STILL_GPS;
  const seenToEnd = stopS !== null && stopS <= endS && !stillFalls;
  const yieldG = Math.max(0, endG - emptyG);
  return {
    firstDropS,
    stopS,
    yieldG,
    afterDripG: seenToEnd ? Math.max(0, endG - atStopG) : null,
    peakFlowGps: firstDropS === null ? 0 : peak(flowGps, firstDropS * hz, shownUntilS * hz),
    partial: longestGapS > HIDING_GAP_S || !seenToEnd || (lifted && stillFalls),
    signs: withFlowSigns(signs, { massG, bridgedS, hz, firstDropS, shownUntilS, atStopG: atStopG - emptyG, good }),
  };
}

function peak(flowGps: readonly number[], from: number, to: number): number {
  return Math.max(0, ...flowGps.slice(Math.floor(from), Math.ceil(to) + 1));
}

function withFlowSigns(
  signs: readonly Sign[],
  shot: {
    massG: readonly number[];
    bridgedS: readonly number[];
    hz: number;
    firstDropS: number | null;
    shownUntilS: number;
    atStopG: number;
    good: GoodStart | null;
  },
): Sign[] {
  const { massG, bridgedS, hz, firstDropS, shownUntilS, atStopG, good } = shot;
  const choke = chokeOf(firstDropS, shownUntilS, atStopG);
  // Drops that fall one by one make a flow of jumps: no channel is read into a choke.
  const sudden = firstDropS === null || choke ? [] : suddenFlow(massG, hz, firstDropS, shownUntilS);
  // Where the scale was knocked or lost its samples the flow is bridged: what changes there is not the coffee's.
  const NEAR_S = 1.6;
  const sure = sudden.filter(({ atS }) => bridgedS.every((bridged) => Math.abs(bridged - atS) > NEAR_S));
  const atOnce = sure.length > 0 || choke || !good ? null : openedAtOnce(massG, hz, firstDropS, good);
  return [...signs, ...sure, ...(atOnce ? [atOnce] : []), ...(choke ? [choke] : [])].sort((a, b) => a.atS - b.atS);
}

/** The smoothed flow has fallen to this share of what it was when the pump has just stopped. */
const BROKEN_OFF = 0.6;
/** By then the drip has gone on for about this long. */
const LATE_S = 0.3;

/** Where the flow breaks off for good; null when it still runs at the end of the trace. */
function breakOffS(flowGps: readonly number[], hz: number, firstDropS: number | null): number | null {
  if (firstDropS === null) return null;
  const start = Math.ceil(firstDropS * hz);
  const running = flowGps.slice(start).filter((flow) => flow > STILL_GPS);
  const usual = levelOf(running.slice(Math.floor(running.length / 2)));
  const last = flowGps.findLastIndex((flow) => flow >= BROKEN_OFF * usual);
  if (last < start || last >= flowGps.length - Math.round(hz / 2)) return null;
  return Math.max(firstDropS, last / hz - LATE_S);
}
