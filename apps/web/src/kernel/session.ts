import type { Session } from '@tempera/contract/team';
import { queryOptions, useQuery, type QueryClient } from '@tanstack/react-query';
import { call } from './api.ts';
import { build } from './build.ts';
import { isLocked, setLocked } from './lock.ts';
import { readIn } from './units.ts';

export const sessionKey = ['session'] as const;
const LAST_SESSION = 'tempera.session';
/** Who stood here before whoever does now. */
const BEFORE = 'tempera.before';
/** Somebody signed out while the server was gone: it does not know yet. */
const LEFT = 'tempera.left';
/** Who chose their name while the server was gone, and has given no PIN yet. */
const UNCONFIRMED = 'tempera.unconfirmed';

/** Who stood here last, as this device keeps it, and the build of the page that wrote it down. */
interface Remembered {
  build: string;
  session: Session;
}

const remembered = (): unknown => JSON.parse(localStorage.getItem(LAST_SESSION) ?? 'null');

/** Who stood here, as this very build wrote it down: nothing has to be fetched to read it. */
function sessionHere(): Session | undefined {
  try {
    const kept = remembered() as Remembered | null;
    if (kept?.build !== build) return undefined;
    readIn(kept.session.units);
    return kept.session;
  } catch {
    return undefined;
  }
}

/** A reload without network still knows who stood here; the server has the last word as soon as it answers. */
async function rememberedSession(): Promise<Session | null> {
  const here = sessionHere();
  if (here) return here;
  try {
    const { sessionSchema } = await import('@tempera/contract/team');
    // Another version of the page may have remembered less.
    const kept = remembered() as Partial<Remembered> | null;
    const session = sessionSchema.safeParse(kept?.session ?? kept).data ?? null;
    if (session) readIn(session.units);
    return session;
  } catch {
    return null;
  }
}

/** Remembers who stands here, and writes numbers as they read them. */
function remember(session: Session | null): void {
  const stood = sessionHere()?.person.id;
  if (stood !== undefined && stood !== session?.person.id) localStorage.setItem(BEFORE, stood);
  localStorage.removeItem(UNCONFIRMED);
  if (session !== null) localStorage.removeItem(LEFT);
  if (session === null) localStorage.removeItem(LAST_SESSION);
  else {
    localStorage.setItem(LAST_SESSION, JSON.stringify({ build, session } satisfies Remembered));
    readIn(session.units);
  }
}

async function readSession(): Promise<Session | null> {
  if (isLocked()) {
    // The page is kept behind the lock; the session that it had is ended as soon as the server is in reach.
    if (localStorage.getItem(LEFT) !== null) await endSession().catch(() => undefined);
    return rememberedSession();
  }
  // Whoever the server still knows here, this one stands here now: nobody's entries are taken for another's.
  const unconfirmed = unconfirmedId() === null ? null : await rememberedSession();
  if (unconfirmed) return unconfirmed;
  if (localStorage.getItem(LEFT) !== null) {
    // Whoever left while the server was gone is signed out there before anything else.
    await endSession().catch(() => undefined);
    return null;
  }
  try {
    const session = await call('GET /session');
    // Locked while the answer was on its way.
    if (isLocked()) return await rememberedSession();
    remember(session);
    return session;
  } catch (error) {
    const stood = await rememberedSession();
    if (!stood) throw error;
    return stood;
  }
}

/** Whoever stood here stands here at once, and the server is asked at once whether they still do. */
export const sessionQuery = queryOptions<Session | null>({
  queryKey: sessionKey,
  queryFn: readSession,
  staleTime: 60_000,
  initialData: sessionHere,
  initialDataUpdatedAt: 0,
});

/** Who is signed in on this device; null when nobody is. */
export function useSession() {
  return useQuery(sessionQuery);
}

/** Whether somebody was signed in when this device was last used: what they will read can be read ahead. */
export const stoodHere = (): boolean => localStorage.getItem(LAST_SESSION) !== null;

/** Who stood here before whoever does now: two who share a tablet change places all day. */
export const stoodHereBefore = (): string | null => localStorage.getItem(BEFORE);

/** Signs out, here at once, and at the server as soon as it is in reach. @throws Unreachable while it is not */
export async function endSession(): Promise<void> {
  localStorage.setItem(LEFT, 'yes');
  await call('DELETE /session');
  localStorage.removeItem(LEFT);
}

/** The id of whoever chose their name without a PIN; null where whoever stands here gave one. */
export const unconfirmedId = (): string | null => localStorage.getItem(UNCONFIRMED);

/**
 * The server is gone, and somebody else of the house goes on here by their name alone: no tablet keeps what a short PIN could be
 * checked against. What they write stays on this device until they give their PIN.
 */
export function goesOnHere(client: QueryClient, session: Session): void {
  setLocked(false);
  const left = localStorage.getItem(LEFT);
  remember(session);
  if (left !== null) localStorage.setItem(LEFT, left);
  localStorage.setItem(UNCONFIRMED, session.person.id);
  client.setQueryData(sessionKey, session);
}

/** From now on this person stands here, or nobody does. */
export function standsHere(client: QueryClient, session: Session | null): void {
  setLocked(false);
  remember(session);
  client.setQueryData(sessionKey, session);
}
