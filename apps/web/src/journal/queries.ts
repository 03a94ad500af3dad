import type { AskedOf } from '@tempera/contract/routes';
import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call } from '../kernel/api.ts';

export interface JournalFilters {
  grinderId: string | null;
  groupId: string | null;
  personId: string | null;
  kind: string | null;
}

/** No filter: the journal as it opens. */
export const nothingSet: JournalFilters = { grinderId: null, groupId: null, personId: null, kind: null };

/** Its first page, in the shape in which pages follow one another. */
export const firstPage = async () => ({ pages: [await call('GET /journal', { query: {} })], pageParams: [null] });

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

/** One entry by itself. */
export const useEntry = (id: string) =>
  useQuery({ queryKey: ['journal', 'entry', id], queryFn: () => call('GET /facts/{id}', { params: { id } }) });
