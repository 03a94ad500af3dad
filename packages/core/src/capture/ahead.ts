import type { GoodBand } from './goodBand.ts';
import { lastMassG, type MassTrace } from './trace.ts';

/** What a shot is held against while it runs: its aim in grams and seconds from pump start. */
export interface Pace {
  yieldG: number;
  timeS: { min: number; max: number };
  /** When the first drop falls, s; null: nobody says. */
  firstDropS: number | null;
}

/** First drops come at about this share of a shot. */
const DROP_SHARE = 0.22;

/** Grams that should be in the cup at a moment: the middle of the house's good shots, or an even flow to the gate's middle. */
function massByThen(pace: Pace, good: GoodBand | null, atS: number): number {
  if (good !== null && good.lowG.length > 0) {
    const i = Math.min(good.lowG.length - 1, atS * good.hz);
    const [before, after] = [Math.floor(i), Math.ceil(i)];
    const middle = (at: number): number => ((good.lowG[at] ?? 0) + (good.highG[at] ?? 0)) / 2;
    return middle(before) + (middle(after) - middle(before)) * (i - before);
  }
  const endS = (pace.timeS.min + pace.timeS.max) / 2;
  const dropS = Math.min(pace.firstDropS ?? DROP_SHARE * endS, endS);
  const share = (atS - dropS) / Math.max(1, endS - dropS);
  return pace.yieldG * Math.min(1, Math.max(0, share));
}

/**
 * How many grams a shot is ahead of (positive) or behind the house's good ones at its last sample; null before a drop of either
 * has fallen.
 */
export function aheadG(trace: MassTrace, pace: Pace, good: GoodBand | null): number | null {
  const atS = (trace.massG.length - 1) / trace.hz;
  const [mass, wanted] = [lastMassG(trace), massByThen(pace, good, atS)];
  const LEAST_G = 0.5;
  return mass < LEAST_G && wanted < LEAST_G ? null : mass - wanted;
}
