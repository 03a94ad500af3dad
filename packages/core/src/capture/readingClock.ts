/** A clock that went back by more than this was set anew: the scale slept. */
const SLEPT_MS = 1_000;
/** A clock that runs slow or fast is followed by so much of each reading's lateness. */
const FOLLOWS = 0.01;

/**
 * When readings were taken, in ms since the epoch, though radio and wire deliver them late and in bursts: what arrived with
 * the least delay tells how a scale's clock and ours differ.
 * @returns takes a scale's clock and the moment of arrival
 */
export function readingClock(): (clockMs: number, arrivedMs: number) => number {
  let offsetMs = Infinity;
  let lastMs = -Infinity;
  return (clockMs, arrivedMs) => {
    if (clockMs < lastMs - SLEPT_MS) offsetMs = Infinity;
    lastMs = clockMs;
    const late = arrivedMs - clockMs - offsetMs;
    offsetMs = late > 0 && Number.isFinite(offsetMs) ? offsetMs + late * FOLLOWS : arrivedMs - clockMs;
    return Math.min(clockMs + offsetMs, arrivedMs);
  };
}

/** A wire that was silent for longer has begun anew: nothing is spread over the silence. */
const LONGEST_GAP_MS = 500;

/** Moments of `count` readings that arrived in one piece without times of their own: evenly since the piece before. */
export function spreadArrival(beforeMs: number | null, arrivedMs: number, count: number): number[] {
  const gapMs = beforeMs === null || arrivedMs - beforeMs > LONGEST_GAP_MS ? 0 : arrivedMs - beforeMs;
  return Array.from({ length: count }, (_, i) => arrivedMs - (gapMs * (count - 1 - i)) / count);
}
