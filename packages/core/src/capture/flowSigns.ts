import { readingSdG, slopeGps } from './flow.ts';
import { levelOf, type Sign } from './trace.ts';

/** Flow is compared over windows of this length before and after a moment... */
const WINDOW_S = 2;
/** ...set apart by this, since the drip blurs a sudden change. */
const BLUR_S = 0.2;
/** Before this the first drops make any ratio. */
const SETTLED_AFTER_DROP_S = 0.6;
/** A sudden rise of the flow by this factor, beyond what the shot does anyway, is a way that the water found. */
const SUDDEN_LN = 0.11;
/** Every flow swells at first, less and less: a channel stands out from that as a rise after a lull. */
const LULL_LN = 0.05;
/** A rise must stand out of the scale's own noise by this many sd: it is looked for at some two hundred moments. */
const NOISE_SDS = 3.8;
/** A spurt is over within this time. */
const SPURT_S = 3;
/** What falls by this share of what it rose has come back. */
const FELL_SHARE = 0.6;
/** Below this flow a ratio is noise. */
const LEAST_GPS = 0.3;

interface Rise {
  at: number;
  /** ln of the flow after over the flow before. */
  ln: number;
}

/** Channels and spurts in a clean trace between the first drop and the stop. */
export function suddenFlow(massG: readonly number[], hz: number, firstDropS: number, stopS: number): Sign[] {
  const rises = risesOf(massG, hz, firstDropS, stopS);
  const usual = levelOf(rises.map(({ ln }) => ln));
  const noise = NOISE_SDS * ratioSd(massG, hz, firstDropS, stopS);
  const sudden = Math.max(SUDDEN_LN, noise);
  const signs: Sign[] = [];
  let lull = Infinity;
  let k = 0;
  while (k < rises.length) {
    let peak = { at: 0, ln: 0, over: 0 };
    for (; k < rises.length; k += 1) {
      const here = rises[k];
      if (!here) break;
      lull = Math.min(lull, here.ln);
      if (here.ln - usual < sudden) break;
      if (here.ln - lull > peak.over) peak = { ...here, over: here.ln - lull };
    }
    if (peak.over >= Math.max(LULL_LN, noise / 2) && !comesBack(rises, peak, usual, hz)) {
      signs.push({ kind: fallsBack(rises, peak, usual, hz) ? 'spurt' : 'channel', atS: peak.at / hz });
    }
    k += 1;
  }
  return signs;
}

/** How the flow changes about each moment of the running shot. */
function risesOf(massG: readonly number[], hz: number, firstDropS: number, stopS: number): Rise[] {
  const window = Math.round(WINDOW_S * hz);
  const blur = Math.round(BLUR_S * hz);
  const from = Math.ceil((firstDropS + SETTLED_AFTER_DROP_S) * hz) + window + blur;
  const to = Math.min(massG.length - 1, Math.floor(stopS * hz)) - window - blur;
  const rises: Rise[] = [];
  for (let at = from; at <= to; at += 1) {
    const before = slopeGps(massG, at - blur - window, at - blur, hz);
    const after = slopeGps(massG, at + blur, at + blur + window, hz);
    if (before >= LEAST_GPS && after > 0) rises.push({ at, ln: Math.log(after / before) });
  }
  return rises;
}

/** Sd of a rise by the scale's noise alone: noise over flow, for two least-squares slopes. */
function ratioSd(massG: readonly number[], hz: number, firstDropS: number, stopS: number): number {
  const from = Math.ceil(firstDropS * hz);
  const to = Math.min(massG.length - 1, Math.floor(stopS * hz));
  const sd = readingSdG(massG.slice(from, to + 1));
  const samples = WINDOW_S * hz + 1;
  const slopeSd = sd * hz * Math.sqrt(12 / samples ** 3);
  const gps = ((massG[to] ?? 0) - (massG[from] ?? 0)) / Math.max((to - from) / hz, 1);
  return gps > 0 ? (Math.SQRT2 * slopeSd) / gps : Infinity;
}

/** By how much the flow falls: a flow that swells less than it usually does has not fallen. */
const fallLn = ({ ln }: Rise, usual: number): number => Math.max(ln, ln - usual);

/** Whether the flow had fallen by as much just before: a scale that sank comes back, and nothing opened. */
function comesBack(rises: readonly Rise[], peak: Rise, usual: number, hz: number): boolean {
  const before = rises.filter(({ at }) => at < peak.at && peak.at - at <= 2 * WINDOW_S * hz);
  const deepest = Math.min(0, ...before.map((rise) => fallLn(rise, usual)));
  return -deepest > FELL_SHARE * (peak.ln - usual);
}

/** Whether the flow falls back by as much as it rose, soon after. */
function fallsBack(rises: readonly Rise[], peak: Rise, usual: number, hz: number): boolean {
  const soon = rises.filter(({ at }) => at > peak.at && at - peak.at <= (SPURT_S + WINDOW_S) * hz);
  const deepest = Math.min(0, ...soon.map((rise) => fallLn(rise, usual)));
  return -deepest > FELL_SHARE * (peak.ln - usual);
}

/** A shot that hardly runs: no drop for a long time, or drops only. */
const DRY_S = 15;
const DROPS_ONLY_GPS = 0.5;
const LONG_SHOT_S = 20;

/** @returns a choke's sign, or null when the shot runs */
export function chokeOf(firstDropS: number | null, stopS: number, massAtStopG: number): Sign | null {
  if (firstDropS === null) return stopS >= DRY_S ? { kind: 'choke', atS: DRY_S } : null;
  const drops = stopS >= LONG_SHOT_S && massAtStopG / Math.max(stopS - firstDropS, 1) < DROPS_ONLY_GPS;
  return drops || firstDropS >= DRY_S ? { kind: 'choke', atS: firstDropS } : null;
}
