import type { Session } from '@tempera/contract/team';
import { gramsUsed } from '@tempera/core/coffee';
import { businessDay, momentOf } from '@tempera/core/house';
import { useMemo } from 'react';
import { useOpeningInHand } from './useOpeningInHand.ts';
import { useStandingFacts } from './useStandingFacts.ts';

/** Grams used since the opening began that is in hand, or else today: the number that the page to sign shows too. */
export function useUsedG(site: Session['site'], nowMs: number, grinderId?: string): number {
  const facts = useStandingFacts();
  const opening = useOpeningInHand(nowMs);
  return useMemo(() => {
    const { timeZone, dayStartsMin } = site;
    const fromMs = opening ?? momentOf(businessDay(nowMs, timeZone, dayStartsMin), dayStartsMin, timeZone);
    return gramsUsed(facts, grinderId === undefined ? { fromMs } : { fromMs, grinderId }).totalG;
  }, [facts, opening, site, nowMs, grinderId]);
}
