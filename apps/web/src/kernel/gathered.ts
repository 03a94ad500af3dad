/** News that come one upon the other wait until the page has been free for twice as long as the last took to be drawn: it has hands to answer. */
const WAIT_TIMES = 2;
const LONGEST_WAIT_MS = 2_000;

/**
 * Gathers what comes close together; what comes alone, after a quiet while, is taken at once.
 *
 * @param take is given all that was gathered, in the order in which it came
 * @returns hears the next
 */
export function gathered<T>(take: (all: readonly T[]) => void): (one: T) => void {
  let waiting: T[] = [];
  let freeAtMs = 0;
  const takeAll = (): void => {
    const all = waiting;
    waiting = [];
    const began = performance.now();
    take(all);
    // Drawn by then.
    setTimeout(() => {
      const now = performance.now();
      freeAtMs = now + Math.min(LONGEST_WAIT_MS, WAIT_TIMES * (now - began));
    });
  };
  return (one) => {
    waiting.push(one);
    if (waiting.length === 1) setTimeout(takeAll, Math.max(0, freeAtMs - performance.now()));
  };
}
