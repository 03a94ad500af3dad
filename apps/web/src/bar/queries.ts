import type { Bar } from '@tempera/contract/bar';
import type { RecordedFact } from '@tempera/contract/journal';
import { useQuery, type QueryClient } from '@tanstack/react-query';
import { api } from '../shell/api.ts';

const barKey = ['bar'] as const;

export function useBar() {
  return useQuery({ queryKey: barKey, queryFn: () => api<Bar>('GET', '/bar'), staleTime: 60_000 });
}

/** A fact from here or from another device joins the bar without a new read. */
export function addFactToBar(client: QueryClient, fact: RecordedFact): void {
  client.setQueryData<Bar>(barKey, (bar) =>
    bar && !bar.facts.some((known) => known.id === fact.id) ? { ...bar, facts: [...bar.facts, fact] } : bar,
  );
}
