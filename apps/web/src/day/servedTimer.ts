import { useEffect, useState } from 'react';
import { leftAfterS } from '../calibration/index.ts';
import { keepHere, readHere } from '../kernel/here.ts';

/** A customer's shot that this device times: it runs on wherever somebody looks meanwhile, and over a reload. */
interface ServedTimer {
  startedAtMs: number;
  /** Where the collar stood as it began. */
  setting: number;
  /** Null while it runs. */
  stoppedAtS: number | null;
}

const TICK_MS = 100;

const keyOf = (grinderId: string): string => `tempera.served.${grinderId}`;

const read = (grinderId: string): ServedTimer | null => readHere(keyOf(grinderId)) as ServedTimer | null;

/** Whether a shot of this grinder is being timed on this device. */
export const isTimed = (grinderId: string): boolean => read(grinderId) !== null;

const elapsedS = ({ startedAtMs, stoppedAtS }: ServedTimer): number =>
  stoppedAtS ?? Math.max(0, Math.round((Date.now() - startedAtMs) / 100) / 10);

/**
 * The timer of a grinder's next shot. A running one that was left is forgotten by itself: what it shows is then no shot's time.
 * @param timeMaxS the recipe's latest second
 */
export function useServedTimer(grinderId: string, timeMaxS: number) {
  const [timer, setTimer] = useState(() => read(grinderId));
  const [isForgotten, setForgotten] = useState(false);
  const [, setTick] = useState(0);
  const put = (next: ServedTimer | null): void => {
    keepHere(keyOf(grinderId), next);
    setTimer(next);
    setForgotten(false);
  };
  const running = timer !== null && timer.stoppedAtS === null;
  useEffect(() => {
    if (!running) return undefined;
    const look = (): void => {
      if (elapsedS(timer) < leftAfterS(timeMaxS)) {
        setTick((n) => n + 1);
        return;
      }
      keepHere(keyOf(grinderId), null);
      setTimer(null);
      setForgotten(true);
    };
    look();
    const ticking = setInterval(look, TICK_MS);
    return () => clearInterval(ticking);
  }, [running, timer, grinderId, timeMaxS]);
  return {
    running,
    isForgotten,
    /** Seconds from start to stop, or until now; null: it was not started. */
    timeS: timer && elapsedS(timer),
    /** When it began and where the collar stood then; null: it was not started. */
    begun: timer && { at: new Date(timer.startedAtMs).toISOString(), setting: timer.setting },
    start: (setting: number) => put({ startedAtMs: Date.now(), setting, stoppedAtS: null }),
    stop: () => timer && put({ ...timer, stoppedAtS: elapsedS(timer) }),
    /** It is written down, or was none. */
    clear: () => put(null),
  };
}
