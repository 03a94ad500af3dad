import type { AnswerOf, AskedOf } from '@tempera/contract/routes';
import type { Bag, Stock } from '@tempera/contract/coffee';
import { keepPreviousData, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { call } from '../kernel/api.ts';

const stockKey = ['coffee', 'stock'] as const;

export function useStock() {
  return useQuery({
    queryKey: stockKey,
    queryFn: () => call('GET /coffee/stock'),
    staleTime: 60_000,
  });
}

export function useCoffeeUse() {
  return useQuery({
    queryKey: ['coffee', 'use'],
    queryFn: () => call('GET /coffee/use'),
    staleTime: 300_000,
  });
}

type BagsAsked = AskedOf<'GET /coffee/bags'>['query'];

/** The bags as their page opens. */
export const firstBags = {
  search: '',
  sort: 'roastedOn',
  descending: true,
  page: 1,
  perPage: 25,
} as const satisfies BagsAsked;

const bagPage = (query: BagsAsked) => ({
  queryKey: ['coffee', 'bags', query],
  queryFn: () => call('GET /coffee/bags', { query }),
});
export const firstBagsRead = bagPage(firstBags);

/** A page of bags; the page before stays while the next one comes. */
export function useBagPage(query: BagsAsked) {
  return useQuery({
    ...bagPage(query),
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
}

/** Bags that this device has read of, in stock or on a page of them. */
function bagsRead(client: QueryClient): Bag[] {
  const pages = client.getQueriesData<AnswerOf<'GET /coffee/bags'>>({ queryKey: ['coffee', 'bags'] });
  return [...(client.getQueryData<Stock>(stockKey)?.bags ?? []), ...pages.flatMap(([, page]) => page?.rows ?? [])];
}

/** One bag; until it is read, and where the server is gone, as a list of bags has it. */
export function useBag(id: string | null) {
  const client = useQueryClient();
  return useQuery({
    queryKey: ['coffee', 'bag', id],
    queryFn: () => call('GET /coffee/bags/{id}', { params: { id: id ?? '' } }),
    initialData: () => bagsRead(client).find((bag) => bag.id === id),
    // As old as can be: it is read by itself all the same.
    initialDataUpdatedAt: 0,
    enabled: id !== null,
  });
}
