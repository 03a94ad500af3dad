import type { NewCafe, Session } from '@tempera/contract/team';
import type { Units } from '@tempera/core/house';
import { useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { call } from '../kernel/api.ts';
import { standsHere } from '../kernel/session.ts';

/** Names to sign in with, and the demo's PINs. */
export function useWelcome() {
  return useQuery({ queryKey: ['welcome'], queryFn: () => call('GET /welcome'), staleTime: 300_000 });
}

function forgetAllButWelcome(client: QueryClient): void {
  client.removeQueries({ predicate: (query) => query.queryKey[0] !== 'welcome' && query.queryKey[0] !== 'session' });
}

function useBegin<T>(begin: (input: T) => Promise<Session>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: begin,
    onSuccess: (session) => {
      forgetAllButWelcome(client);
      standsHere(client, session);
    },
  });
}

export const useSignIn = () =>
  useBegin((input: { personId: string; pin: string }) => call('POST /session', { body: input }));

/** Sets up the first café of an empty server; its head barista is signed in. */
export const useSetUp = () => useBegin((cafe: NewCafe) => call('POST /cafe', { body: cafe }));

/** What this person reads and types in from now on. */
export function useChangeUnits() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (units: Units) => call('PUT /session/units', { body: units }),
    onSuccess: (session) => standsHere(client, session),
  });
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call('DELETE /session'),
    onSettled: () => {
      forgetAllButWelcome(client);
      standsHere(client, null);
    },
  });
}
