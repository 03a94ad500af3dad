/** Times are read in tenths: a miss that would be written as 0.0 s is none. */
const LEAST_MISS_S = 0.05;

/** Seconds outside the window: 0 inside, negative when too fast. */
export function missOf(timeS: number, window: { min: number; max: number }): number {
  const miss = timeS < window.min ? timeS - window.min : Math.max(0, timeS - window.max);
  return Math.abs(miss) < LEAST_MISS_S ? 0 : miss;
}
