import type { AskedOf } from '@tempera/contract/routes';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { call } from '../kernel/api.ts';

export interface JournalFilters {
  grinderId: string | null;
  groupId: string | null;
  personId: string | null;
  kind: string | null;
}

/** Filters that are set, as the server is asked for them. */
const asked = (filters: JournalFilters): AskedOf<'GET /journal'>['query'] =>
  Object.fromEntries(Object.entries(filters).filter(([, value]) => value));

export function useJournal(filters: JournalFilters) {
  return useInfiniteQuery({
    queryKey: ['journal', filters],
    initialPageParam: null as number | null,
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) =>
      call('GET /journal', { query: { ...asked(filters), ...(pageParam === null ? {} : { beforeSeq: pageParam }) } }),
    getNextPageParam: (page) => page.nextBeforeSeq,
  });
}
