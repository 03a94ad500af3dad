import { openingFromMs } from '@tempera/core/opening';
import { useMemo } from 'react';
import { useStandingFacts } from './useStandingFacts.ts';

/** When the opening began that is under way and that nobody has signed for; null when there is none. */
export function useOpeningInHand(nowMs: number): number | null {
  const facts = useStandingFacts();
  return useMemo(() => openingFromMs(facts, nowMs), [facts, nowMs]);
}
