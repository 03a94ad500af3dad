import { quantile } from '../numbers/index.ts';
import type { MassTrace } from './trace.ts';

/** Between what masses the house's good shots ran, from pump start; sample i is at i / hz. */
export interface GoodBand {
  hz: number;
  lowG: number[];
  highG: number[];
  shots: number;
}

const BAND_HZ = 2;
const FEWEST = 3;
/** Eight of ten good shots lie inside. */
const LOW = 0.1;
const HIGH = 0.9;

/** The band of good shots; null with fewer than three of them: two shots are no band. */
export function goodBand(traces: readonly MassTrace[]): GoodBand | null {
  const good = traces.filter(({ hz, massG }) => hz > 0 && massG.some((mass) => mass !== null));
  if (good.length < FEWEST) return null;
  const endS = Math.min(...good.map(({ hz, massG }) => (massG.length - 1) / hz));
  const band: GoodBand = { hz: BAND_HZ, lowG: [], highG: [], shots: good.length };
  for (let i = 0; i <= Math.floor(endS * BAND_HZ); i += 1) {
    const atS = i / BAND_HZ;
    const masses = good
      .map((trace) => massAt(trace, atS))
      .filter((mass): mass is number => mass !== null)
      .sort((a, b) => a - b);
    band.lowG.push(quantile(masses, LOW));
    band.highG.push(quantile(masses, HIGH));
  }
  return band;
}

/** The last mass seen by then; null before the first. */
function massAt({ hz, massG }: MassTrace, atS: number): number | null {
  for (let i = Math.min(massG.length - 1, Math.round(atS * hz)); i >= 0; i -= 1) {
    const mass = massG[i];
    if (mass !== null && mass !== undefined) return mass;
  }
  return null;
}
