/** Mass on the scale at a steady rate from pump start; null where a sample was lost. */
export interface MassTrace {
  hz: number;
  massG: readonly (number | null)[];
}

/** A drop on the scale that is surely coffee and not noise. */
const FIRST_DROP_G = 0.3;
/** The first drop is believed once the mass has gone on rising for this long. */
const RISING_FOR_S = 0.6;
const RISING_BY_G = 0.2;
/** Flow is read over this window: shorter is noise, longer hides a channel. */
const FLOW_WINDOW_S = 1.5;

/**
 * Seconds from pump start to the first drop: where the rising mass, followed back to zero, leaves the cup empty.
 * @returns null while no drop has surely fallen.
 */
export function findFirstDropS({ hz, massG }: MassTrace): number | null {
  const risingSamples = Math.round(RISING_FOR_S * hz);
  for (let i = 0; i + risingSamples < massG.length; i += 1) {
    const mass = massG[i];
    const later = massG[i + risingSamples];
    if (mass == null || later == null) continue;
    if (mass >= FIRST_DROP_G && later - mass >= RISING_BY_G) {
      const gainPerS = (later - mass) / RISING_FOR_S;
      return Math.max(0, i / hz - Math.min(mass / gainPerS, 1));
    }
  }
  return null;
}

/** Flow in g/s at each sample, over the last second and a half; 0 before there are enough samples, never below 0. */
export function flowGps({ hz, massG }: MassTrace): number[] {
  const back = Math.round(FLOW_WINDOW_S * hz);
  let lastMassG = 0;
  const filled = massG.map((mass) => (lastMassG = mass ?? lastMassG));
  return filled.map((mass, i) => (i < back ? 0 : Math.max(0, (mass - (filled[i - back] ?? 0)) / FLOW_WINDOW_S)));
}

/** Grams in the cup at the end of a trace; 0 for an empty one. */
export function lastMassG({ massG }: MassTrace): number {
  return massG.findLast((mass) => mass !== null) ?? 0;
}

/** Seconds' worth of flow that still falls after the pump stops, before a group's own drip is learned. */
const USUAL_DRIP_S = 1;

/** Grams to expect in the cup once the drip has ended, from what is in it at the stop and how fast it ran. */
export function expectedFinalG(trace: MassTrace): number {
  return lastMassG(trace) + USUAL_DRIP_S * (flowGps(trace).at(-1) ?? 0);
}
