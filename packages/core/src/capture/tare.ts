import { levelOf, type MassTrace } from './trace.ts';

/** The pump runs for at least this long before anything can fall. */
const DRY_S = 1;
/** What an empty scale shows by itself is less than this. */
const LEAST_G = 1;

/**
 * A trace with what stood on the scale before the first drop taken off: a cup that nobody tared, or a lighter one than the
 * tared one. A scale that shows next to nothing is believed.
 */
export function tared(trace: MassTrace): MassTrace {
  const { hz, massG } = trace;
  const dry = massG.slice(0, Math.max(1, Math.round(DRY_S * hz))).filter((mass) => mass !== null);
  const standsG = levelOf(dry);
  if (Math.abs(standsG) < LEAST_G) return trace;
  return { hz, massG: massG.map((mass) => (mass === null ? null : mass - standsG)) };
}
