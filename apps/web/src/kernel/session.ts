import type { Session } from '@tempera/contract/team';
import { queryOptions, useQuery, type QueryClient } from '@tanstack/react-query';
import { call } from './api.ts';
import { readIn } from './units.ts';

export const sessionKey = ['session'] as const;
const LAST_SESSION = 'tempera.session';

/** A reload without network still knows who stood here; the server has the last word as soon as it answers. */
async function rememberedSession(): Promise<Session | null> {
  try {
    const { sessionSchema } = await import('@tempera/contract/team');
    // An older version of the page may have remembered less.
    return sessionSchema.safeParse(JSON.parse(localStorage.getItem(LAST_SESSION) ?? 'null')).data ?? null;
  } catch {
    return null;
  }
}

/** Remembers who stands here, and writes numbers as they read them. */
function remember(session: Session | null): void {
  if (session === null) localStorage.removeItem(LAST_SESSION);
  else {
    localStorage.setItem(LAST_SESSION, JSON.stringify(session));
    readIn(session.units);
  }
}

async function readSession(): Promise<Session | null> {
  try {
    const session = await call('GET /session');
    remember(session);
    return session;
  } catch (error) {
    const remembered = await rememberedSession();
    if (!remembered) throw error;
    readIn(remembered.units);
    return remembered;
  }
}

export const sessionQuery = queryOptions({ queryKey: sessionKey, queryFn: readSession, staleTime: 60_000 });

/** Who is signed in on this device; null when nobody is. */
export function useSession() {
  return useQuery(sessionQuery);
}

/** Whether somebody was signed in when this device was last used: what they will read can be read ahead. */
export const stoodHere = (): boolean => localStorage.getItem(LAST_SESSION) !== null;

/** From now on this person stands here, or nobody does. */
export function standsHere(client: QueryClient, session: Session | null): void {
  remember(session);
  client.setQueryData(sessionKey, session);
}
