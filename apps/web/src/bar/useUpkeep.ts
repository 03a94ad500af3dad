import type { Session } from '@tempera/contract/team';
import { upkeepStates, type UpkeepItem, type UpkeepState } from '@tempera/core/bar';
import { stepsOf, type StandingFacts } from '@tempera/core/facts';
import { businessDay } from '@tempera/core/house';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useNow } from '../ui/useNow.ts';
import { upkeepQuery } from './queries.ts';
import { useStandingFacts } from './useStandingFacts.ts';

function useUpkeepItems() {
  return useQuery({ ...upkeepQuery, select: ({ items }) => items });
}

/** The items as they are once what was done here, sent or not, is counted. */
function withDone(items: readonly UpkeepItem[], facts: StandingFacts, dayOf: (atMs: number) => string): UpkeepItem[] {
  const done = stepsOf(facts, 'upkept');
  return items.map((item) => {
    const last = done.findLast(({ body }) => body.what === item.what && body.stationId === item.stationId);
    const lastOn = last ? dayOf(Date.parse(last.at)) : null;
    return lastOn !== null && lastOn > (item.lastOn ?? '')
      ? { ...item, lastOn, lastBy: last?.body.by || null, counted: 0 }
      : item;
  });
}

/**
 * Everything that is kept up, what falls due first; null while it is read.
 * @param facts what stands, where it is asked how it stood then; absent: by now
 */
export function useUpkeep({ site }: Pick<Session, 'site'>, facts?: StandingFacts): UpkeepState[] | null {
  const { data: items } = useUpkeepItems();
  const standing = useStandingFacts();
  const known = facts ?? standing;
  const nowMs = useNow();
  const today = businessDay(nowMs, site.timeZone, site.dayStartsMin);
  return useMemo(() => {
    const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, site.dayStartsMin);
    return items ? upkeepStates(withDone(items, known, dayOf), today) : null;
  }, [items, known, today, site]);
}
