import type { Bench } from '@tempera/contract/calibration';
import type { RecordedEntry } from '@tempera/contract/journal';
import { useQuery, type QueryClient } from '@tanstack/react-query';
import { addToRead } from '../kernel/addToRead.ts';
import { call } from '../kernel/api.ts';
import type { KeptRead } from '../kernel/room.ts';

const benchKey = (grinderId: string) => ['bench', grinderId] as const;

export function useBenchFacts(grinderId: string) {
  return useQuery({
    queryKey: benchKey(grinderId),
    queryFn: () => call('GET /benches/{grinderId}', { params: { grinderId } }),
    staleTime: 60_000,
  });
}

/** A bench, kept for when the server is gone. */
export const keptBench = (grinderId: string): KeptRead => ({
  queryKey: benchKey(grinderId),
  queryFn: () => call('GET /benches/{grinderId}', { params: { grinderId } }),
});

/** A fact of a grinder, from here or from another device, joins its bench. */
export function takeIntoBench(client: QueryClient, fact: RecordedEntry): void {
  if (fact.kind === 'step') return;
  addToRead<Bench>(client, benchKey(fact.grinderId), (bench) =>
    bench.facts.some((known) => known.id === fact.id) ? bench : { facts: [...bench.facts, fact] },
  );
}
