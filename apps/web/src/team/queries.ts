import { sessionSchema, type NewCafe, type Session, type Welcome } from '@tempera/contract/team';
import type { Units } from '@tempera/core/house';
import { useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { api } from '../shell/api.ts';

export const sessionKey = ['session'] as const;
const LAST_SESSION = 'tempera.session';

/** A reload without network still knows who stood here; the server has the last word as soon as it answers. */
function rememberedSession(): Session | null {
  try {
    // An older version of the page may have remembered less.
    return sessionSchema.safeParse(JSON.parse(localStorage.getItem(LAST_SESSION) ?? 'null')).data ?? null;
  } catch {
    return null;
  }
}

async function readSession(): Promise<Session | null> {
  try {
    const session = await api<Session | null>('GET', '/session');
    if (session) localStorage.setItem(LAST_SESSION, JSON.stringify(session));
    else localStorage.removeItem(LAST_SESSION);
    return session;
  } catch (error) {
    const remembered = rememberedSession();
    if (remembered) return remembered;
    throw error;
  }
}

/** Who is signed in on this device; null when nobody is. */
export function useSession() {
  return useQuery({ queryKey: sessionKey, queryFn: readSession, staleTime: 60_000 });
}

/** Names to sign in with, and the demo's PINs. */
export function useWelcome() {
  return useQuery({ queryKey: ['welcome'], queryFn: () => api<Welcome>('GET', '/welcome'), staleTime: 300_000 });
}

function forgetAllButWelcome(client: QueryClient): void {
  client.removeQueries({ predicate: (query) => query.queryKey[0] !== 'welcome' && query.queryKey[0] !== 'session' });
}

function useBegin<T>(begin: (input: T) => Promise<Session>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: begin,
    onSuccess: (session) => {
      localStorage.setItem(LAST_SESSION, JSON.stringify(session));
      forgetAllButWelcome(client);
      client.setQueryData(sessionKey, session);
    },
  });
}

export const useSignIn = () =>
  useBegin((input: { personId: string; pin: string }) => api<Session>('POST', '/session', input));

/** Sets up the first café of an empty server; its head barista is signed in. */
export const useSetUp = () => useBegin((cafe: NewCafe) => api<Session>('POST', '/cafe', cafe));

/** What this person reads and types in from now on. */
export function useChangeUnits() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (units: Units) => api<Session>('PUT', '/session/units', units),
    onSuccess: (session) => {
      localStorage.setItem(LAST_SESSION, JSON.stringify(session));
      client.setQueryData(sessionKey, session);
    },
  });
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => api<undefined>('DELETE', '/session'),
    onSettled: () => {
      localStorage.removeItem(LAST_SESSION);
      forgetAllButWelcome(client);
      client.setQueryData(sessionKey, null);
    },
  });
}
