import { openingFromMs } from '@tempera/core/opening';
import { useMemo } from 'react';
import { useStandingFacts } from './useStandingFacts.ts';

/**
 * When the run began that is under way and that nobody has signed for; null when there is none.
 * @param grinderId asks only for a run that is about this grinder
 */
export function useOpeningInHand(nowMs: number, grinderId?: string): number | null {
  const facts = useStandingFacts();
  return useMemo(() => openingFromMs(facts, nowMs, grinderId), [facts, nowMs, grinderId]);
}
