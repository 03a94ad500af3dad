import type { AskedOf } from '@tempera/contract/routes';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../kernel/api.ts';

export function useStock() {
  return useQuery({
    queryKey: ['coffee', 'stock'],
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

/** A page of bags; the page before stays while the next one comes. */
export function useBagPage(query: AskedOf<'GET /coffee/bags'>['query']) {
  return useQuery({
    queryKey: ['coffee', 'bags', query],
    queryFn: () => call('GET /coffee/bags', { query }),
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
}

export function useBag(id: string | null) {
  return useQuery({
    queryKey: ['coffee', 'bag', id],
    queryFn: () => call('GET /coffee/bags/{id}', { params: { id: id ?? '' } }),
    enabled: id !== null,
  });
}
