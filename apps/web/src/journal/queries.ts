import type { AskedOf } from '@tempera/contract/routes';
import type { JournalEntry, JournalPage } from '@tempera/contract/journal';
import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
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

/** Who came in, and from where: no device keeps it (`kernel/offline.ts`). */
export const changesKey = ['changes'] as const;

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

/** One entry by itself; until it is read, and where the server is gone, as a page of the journal has it: without its trace. */
export function useEntry(id: string) {
  const client = useQueryClient();
  return useQuery({
    queryKey: ['journal', 'entry', id],
    queryFn: () => call('GET /facts/{id}', { params: { id } }),
    initialData: () => entryIn(client, id),
    // As old as can be: it is read by itself all the same.
    initialDataUpdatedAt: 0,
  });
}

/** An entry on the pages of the journal that this device has read, with what belongs to it. */
function entryIn(client: QueryClient, id: string): JournalEntry | undefined {
  const pages = client
    .getQueriesData<{ pages: JournalPage[] }>({
      queryKey: ['journal'],
      predicate: ({ queryKey: [, of] }) => typeof of === 'object',
    })
    .flatMap(([, read]) => read?.pages ?? []);
  const rows = pages.flatMap(({ facts, related }) => [...facts, ...related]);
  const fact = rows.find((row) => row.id === id);
  if (!fact) return undefined;
  const undone = fact.kind === 'correction' ? fact.body.factId : null;
  const related = rows.filter(
    (row, i) =>
      (row.id === undone || (row.kind === 'correction' && row.body.factId === id)) &&
      rows.findIndex((other) => other.id === row.id) === i,
  );
  return { fact, related, gate: null };
}
