import type { Bench } from '@tempera/contract/calibration';
import type { RecordedFact } from '@tempera/contract/journal';
import { useQuery, type QueryClient } from '@tanstack/react-query';
import { api } from '../shell/api.ts';

const benchKey = (grinderId: string) => ['bench', grinderId] as const;

export function useBenchFacts(grinderId: string) {
  return useQuery({
    queryKey: benchKey(grinderId),
    queryFn: () => api<Bench>('GET', `/benches/${encodeURIComponent(grinderId)}`),
    staleTime: 60_000,
  });
}

export function addFactToBench(client: QueryClient, fact: RecordedFact): void {
  client.setQueryData<Bench>(benchKey(fact.grinderId), (bench) =>
    bench && !bench.facts.some((known) => known.id === fact.id) ? { facts: [...bench.facts, fact] } : bench,
  );
}
