import { Outbox, type Entry, type OutboxStorage } from './outbox.ts';

/** Storage that outlives an outbox, as IndexedDB outlives a page. */
export function memoryStorage(entries: Entry[] = []): OutboxStorage {
  let kept = structuredClone(entries);
  return {
    read: () => Promise.resolve(structuredClone(kept)),
    change: (change) => {
      kept = structuredClone(change(kept));
      return Promise.resolve();
    },
  };
}

/** An outbox that never reaches its server: everything that is written waits in it. */
export const waitingOutbox = (entries: Entry[] = []): Outbox =>
  new Outbox(memoryStorage(entries), () => Promise.reject(new TypeError('offline')));
