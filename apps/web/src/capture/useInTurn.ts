import { useEffect, useEffectEvent } from 'react';

/**
 * Does something once this tablet's turn has come, at a moment by chance: of several that know the same, the first does it, and for
 * the others it is no longer so. However often a page is drawn meanwhile, nothing is put off; what it shows then is what counts.
 * @param isDue whether it is still to be done
 */
export function useInTurn(isDue: boolean, latestMs: number, act: () => void): void {
  const now = useEffectEvent(act);
  useEffect(() => {
    if (!isDue) return undefined;
    const timer = setTimeout(() => now(), Math.random() * latestMs);
    return () => clearTimeout(timer);
  }, [isDue, latestMs]);
}
