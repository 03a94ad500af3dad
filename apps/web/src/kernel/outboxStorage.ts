import type { NewEntry } from '@tempera/contract/journal';
import { createStore, get, promisifyRequest, update } from 'idb-keyval';
import type { Entry, OutboxStorage } from './outbox.ts';

/** An entry as it is kept, under its fact's id. */
interface KeptEntry extends Omit<Entry, 'fact'> {
  /** Its place: entries go in the order in which they were written. */
  place: number;
  /** As text: a trace of hundreds of numbers is read and written as one, four times as fast. */
  fact: string;
}

const JOTTED = 'tempera.jotted';
/** Where versions of the page before this one kept all entries in one piece, rewritten with each of them. */
const FORMER = { database: 'tempera', store: 'keyval', key: 'outbox' };

function jotted(): NewEntry[] {
  try {
    return JSON.parse(localStorage.getItem(JOTTED) ?? '[]') as NewEntry[];
  } catch {
    return [];
  }
}

const unsent = (fact: NewEntry): Entry => ({ fact, refusal: null });

const keptAt = (place: number, { fact, ...rest }: Entry): KeptEntry => ({ ...rest, place, fact: JSON.stringify(fact) });

/** IndexedDB, and for the moment until it has written, the one store that writes at once. What is written costs the same however much waits. */
export function indexedDbStorage(): OutboxStorage {
  const store = createStore('tempera-outbox', 'entries');
  const former = createStore(FORMER.database, FORMER.store);
  let lastPlace = 0;

  const add = (entries: readonly Entry[]): Promise<void> =>
    store('readwrite', async (kept) => {
      for (const entry of entries) {
        const { id } = entry.fact;
        // A pull that two tabs took up is written by both, under one id: it waits here once.
        if ((await promisifyRequest(kept.getKey(id))) !== undefined) continue;
        lastPlace = Math.max(lastPlace + 1, Date.now());
        kept.put(keptAt(lastPlace, entry), id);
      }
      await promisifyRequest(kept.transaction);
    });

  /** What was jotted down and, the page being closed at once, never got here; and what a former version of the page left. */
  const takeOver = async (): Promise<void> => {
    const left = (await get<Entry[]>(FORMER.key, former)) ?? [];
    const facts = jotted();
    if (left.length + facts.length === 0) return;
    await add([...left, ...facts.map(unsent)]);
    const taken = new Set(left.map(({ fact }) => fact.id));
    // A tab that still is of that version may have added one meanwhile.
    if (taken.size > 0)
      await update<Entry[]>(FORMER.key, (all = []) => all.filter(({ fact }) => !taken.has(fact.id)), former);
    clearJotted(facts);
  };

  const clearJotted = (facts: readonly NewEntry[]): void => {
    const here = new Set(facts.map(({ id }) => id));
    localStorage.setItem(JOTTED, JSON.stringify(jotted().filter(({ id }) => !here.has(id))));
  };

  return {
    read: async () => {
      await takeOver();
      const kept = await store('readonly', (all) => promisifyRequest(all.getAll() as IDBRequest<KeptEntry[]>));
      kept.sort((a, b) => a.place - b.place);
      lastPlace = Math.max(lastPlace, kept.at(-1)?.place ?? 0);
      return kept.map(({ place: _, fact, ...rest }) => ({ ...rest, fact: JSON.parse(fact) as NewEntry }));
    },
    add: async (entries) => {
      await add(entries);
      clearJotted(entries.map(({ fact }) => fact));
    },
    replace: (entries) =>
      store('readwrite', async (kept) => {
        for (const entry of entries) {
          const { id } = entry.fact;
          const before = (await promisifyRequest(kept.get(id))) as KeptEntry | undefined;
          // What another tab has let go of meanwhile stays gone.
          if (before) kept.put(keptAt(before.place, entry), id);
        }
        await promisifyRequest(kept.transaction);
      }),
    remove: (factIds) =>
      store('readwrite', async (kept) => {
        for (const id of factIds) kept.delete(id);
        await promisifyRequest(kept.transaction);
      }),
    jot: (facts) => localStorage.setItem(JOTTED, JSON.stringify([...jotted(), ...facts])),
  };
}
