import type { NewEntry } from '@tempera/contract/journal';
import { Outbox, type Entry, type OutboxStorage } from './outbox.ts';

/** Storage that outlives an outbox, as IndexedDB outlives a page. */
export function memoryStorage(entries: Entry[] = []): OutboxStorage {
  let kept = structuredClone(entries);
  return {
    read: () => Promise.resolve(structuredClone(kept)),
    add: (entries) => {
      const known = new Set(kept.map(({ fact }) => fact.id));
      kept = [...kept, ...structuredClone(entries.filter(({ fact }) => !known.has(fact.id)))];
      return Promise.resolve();
    },
    replace: (entries) => {
      kept = kept.map((one) => structuredClone(entries.find(({ fact }) => fact.id === one.fact.id) ?? one));
      return Promise.resolve();
    },
    remove: (factIds) => {
      kept = kept.filter(({ fact }) => !factIds.includes(fact.id));
      return Promise.resolve();
    },
  };
}

/** An outbox that never reaches its server: everything that is written waits in it. */
export const waitingOutbox = (entries: Entry[] = []): Outbox =>
  new Outbox(memoryStorage(entries), () => Promise.reject(new TypeError('offline')));

/** Keeps what is written, as the real one would until the network is back. */
export function standInOutbox() {
  let kept: Entry[] = [];
  const watchers = new Set<() => void>();
  const outbox = {
    subscribe: (watcher: () => void) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    entries: () => kept,
    add: (entries: NewEntry[]) => {
      kept = [...kept, ...entries.map((fact) => ({ fact, refusal: null }))];
      for (const watcher of watchers) watcher();
      return Promise.resolve();
    },
  } as unknown as Outbox;
  return { outbox, written: (): NewEntry[] => kept.map(({ fact }) => fact) };
}
