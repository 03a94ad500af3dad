import type { Bag, BagsQuery, CoffeeUse, Stock } from '@tempera/contract/coffee';
import type { Page } from '@tempera/contract/sheet';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api } from '../shell/api.ts';

export function useStock() {
  return useQuery({
    queryKey: ['coffee', 'stock'],
    queryFn: () => api<Stock>('GET', '/coffee/stock'),
    staleTime: 60_000,
  });
}

export function useCoffeeUse() {
  return useQuery({
    queryKey: ['coffee', 'use'],
    queryFn: () => api<CoffeeUse>('GET', '/coffee/use'),
    staleTime: 300_000,
  });
}

/** A page of bags; the page before stays while the next one comes. */
export function useBagPage(query: Partial<BagsQuery>) {
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]])),
  ).toString();
  return useQuery({
    queryKey: ['coffee', 'bags', search],
    queryFn: () => api<Page<Bag>>('GET', `/coffee/bags?${search}`),
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
}

export function useBag(id: string | null) {
  return useQuery({
    queryKey: ['coffee', 'bag', id],
    queryFn: () => api<Bag>('GET', `/coffee/bags/${id ?? ''}`),
    enabled: id !== null,
  });
}
