import { createStore, del, get, set } from 'idb-keyval';
import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister';
import type { QueryClient } from '@tanstack/react-query';
import { persistQueryClient } from '@tanstack/react-query-persist-client';
import { MS_PER_DAY, MS_PER_HOUR } from '@tempera/core/numbers';
import { useSyncExternalStore } from 'react';
import { build } from './build.ts';

/** What this device keeps to work without the server: the pages themselves, and what they have read. */

/** What was read longer ago tells nothing about the bar of today. */
export const KEPT_MS = 7 * MS_PER_DAY;
/** So often at most it is written down: every fact that comes in changes what was read. */
const WRITTEN_EVERY_MS = 2_000;
/** A store that does not answer keeps nobody from the bar. */
const PATIENCE_MS = 1_500;

/** Asked for one moment only, or of another person's business; who stands here is remembered by `session.ts` alone. */
const NOT_KEPT = new Set(['search', 'team', 'session', 'changes']);

/**
 * Puts what this device read on its last visit back, and from now on keeps what is read. What was put back stands at once and counts
 * as old: whoever shows it reads it anew. @returns once it is back, or a store that does not answer has been waited for long enough
 */
export async function restoreReads(client: QueryClient): Promise<void> {
  const patience = new Promise((resolve) => setTimeout(resolve, PATIENCE_MS));
  // Where nothing can be kept (a private window, a full disk), nothing was: the page is read from the server.
  await Promise.race([putBack(client).catch(() => undefined), patience]);
}

async function putBack(client: QueryClient): Promise<void> {
  const store = createStore('tempera-reads', 'keyval');
  const openedMs = Date.now();
  const [, restored] = persistQueryClient({
    queryClient: client,
    persister: createAsyncStoragePersister({
      storage: {
        getItem: async (key) => (await get<string>(key, store)) ?? null,
        setItem: (key, value: string) => set(key, value, store),
        removeItem: (key) => del(key, store),
      },
      key: 'reads',
      throttleTime: WRITTEN_EVERY_MS,
    }),
    maxAge: KEPT_MS,
    // Another version of the page may read other shapes.
    buster: build,
    dehydrateOptions: {
      shouldDehydrateQuery: ({ state, queryKey }) =>
        state.data !== undefined && state.data !== null && !NOT_KEPT.has(String(queryKey[0])),
    },
  });
  await restored;
  // What is read again is not waited for: it stands meanwhile as it was kept.
  void client.invalidateQueries({ predicate: ({ state }) => state.dataUpdatedAt < openedMs });
}

let takeUp: (() => void) | null = null;
const waiting = new Set<() => void>();
const tell = (): void => {
  for (const listener of waiting) listener();
};

/** A newer version of the app that is here: what has it made ready, and then what reloads into it. Null while there is none. */
export function useNewVersion(): (() => void) | null {
  return useSyncExternalStore(
    (listener) => {
      waiting.add(listener);
      return () => waiting.delete(listener);
    },
    () => takeUp,
  );
}

/** Keeps the app itself on this device, and hears of newer versions. */
export async function keepApp(): Promise<void> {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  const { serviceWorker } = navigator;
  const registration = await serviceWorker.register('/sw.js').catch(() => null);
  if (!registration) return;
  const reload = (): void => window.location.reload();
  // A first worker takes over silently; a later one means that the pages on screen are of an older version.
  const isLater = serviceWorker.controller !== null;
  const hear = (worker: ServiceWorker): void => {
    takeUp = () => worker.postMessage({ type: 'SKIP_WAITING' });
    tell();
  };
  const follow = (worker: ServiceWorker | null): void =>
    worker?.addEventListener('statechange', () => {
      if (worker.state === 'installed' && serviceWorker.controller !== null) hear(worker);
    });
  if (registration.waiting && isLater) hear(registration.waiting);
  follow(registration.installing);
  registration.addEventListener('updatefound', () => follow(registration.installing));
  // It is in use now, by this tab's wish or another's: this one reloads as soon as nobody is at it.
  serviceWorker.addEventListener('controllerchange', () => {
    if (!isLater) return;
    takeUp = reload;
    tell();
  });
  const look = (): void => void registration.update().catch(() => undefined);
  setInterval(look, MS_PER_HOUR);
  window.addEventListener('online', look);
}
