import { closedNow, locksFromMs, morningOf, openingFromMs, type Closed } from '@tempera/core/opening';
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

/** Whether the bar serves while a run is under way: an opening alone comes before the day. */
export function useServesMeanwhile(nowMs: number): boolean {
  const facts = useStandingFacts();
  return useMemo(() => (morningOf(facts, nowMs)?.run ?? 'opening') !== 'opening', [facts, nowMs]);
}

/** From when on a lock of this grinder counts for the run that is under way; null when none is about it. */
export function useLocksFromMs(nowMs: number, grinderId: string): number | null {
  const facts = useStandingFacts();
  const fromMs = useOpeningInHand(nowMs, grinderId);
  return useMemo(() => (fromMs === null ? null : locksFromMs(facts, fromMs)), [facts, fromMs]);
}

/** How the bar was left, once its closing is signed and until somebody works at it again; null while it serves. */
export function useClosed(nowMs: number): Closed | null {
  const facts = useStandingFacts();
  return useMemo(() => closedNow(facts, nowMs), [facts, nowMs]);
}
