import type { NewEntry, RecordedEntry } from '@tempera/contract/journal';
import { createStore, get, update } from 'idb-keyval';
import { ApiProblem } from './api.ts';

/** A fact that was written here and has not been confirmed by the server. */
export interface Entry {
  /** It names its author, and is sent under their session only. */
  fact: NewEntry;
  /** Set when the server refused it: it stays until somebody looks at it. */
  refusal: string | null;
}

/** Where entries outlive a reload. Handed in, so that tests need no browser. */
export interface OutboxStorage {
  read(): Promise<Entry[]>;
  change(change: (entries: Entry[]) => Entry[]): Promise<void>;
}

const KEY = 'outbox';
const FIRST_RETRY_MS = 1_000;
const LONGEST_RETRY_MS = 30_000;
/** Refusals that are about the moment, not about the fact. */
const TRY_AGAIN = new Set(['notReady', 'internal', 'tooManyRequests', 'signInFirst', 'notYours']);

export function indexedDbStorage(): OutboxStorage {
  const store = createStore('tempera', 'keyval');
  return {
    read: async () => (await get<Entry[]>(KEY, store)) ?? [],
    change: (change) => update<Entry[]>(KEY, (entries) => change(entries ?? []), store),
  };
}

/** Entries of an earlier version of the page carry their author beside them. */
function signed(entry: Entry & { personId?: string }): Entry {
  const { personId, fact, refusal } = entry;
  return personId === undefined ? entry : { fact: { ...fact, personId, skewMs: null }, refusal };
}

type Send = (fact: NewEntry) => Promise<RecordedEntry>;

/**
 * The one place through which every fact is written. Entries are kept first, then sent in order, one at a time, again
 * and again until the server has them; only the signed-in person's own are sent.
 */
export class Outbox {
  #entries: Entry[] = [];
  #listeners = new Set<() => void>();
  #personId: string | null = null;
  #sending = false;
  #retry: ReturnType<typeof setTimeout> | null = null;
  #retryMs = FIRST_RETRY_MS;
  readonly #storage: OutboxStorage;
  readonly #send: Send;
  readonly #channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('tempera-outbox');
  /** Called with each fact once the server has it. */
  onKept: (fact: RecordedEntry) => void = () => undefined;

  constructor(storage: OutboxStorage, send: Send) {
    this.#storage = storage;
    this.#send = send;
    this.#channel?.addEventListener('message', () => void this.load());
  }

  readonly entries = (): readonly Entry[] => this.#entries;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  /** Reads what an earlier page or another tab left. */
  async load(): Promise<void> {
    this.#set((await this.#storage.read()).map(signed));
  }

  /** Whose facts may be sent now; null stops sending. */
  signedIn(personId: string | null): void {
    this.#personId = personId;
    this.flush();
  }

  /** Keeps facts for sending, in the order given. Resolves when they would survive a reload. */
  async add(facts: readonly NewEntry[]): Promise<void> {
    const added = facts.map((fact) => ({ fact, refusal: null }));
    // A pull that two tabs took up is written by both, under one id: it waits here once.
    const join = (entries: Entry[]): Entry[] => [
      ...entries,
      ...added.filter(({ fact }) => !entries.some((waiting) => waiting.fact.id === fact.id)),
    ];
    this.#set(join(this.#entries));
    await this.#change(join);
    this.flush();
  }

  /** Lets a refused entry go. */
  async discard(factId: string): Promise<void> {
    await this.#change((entries) => entries.filter((entry) => entry.fact.id !== factId));
    await this.load();
  }

  /** Sends what waits, now. */
  readonly flush = (): void => {
    if (this.#retry) clearTimeout(this.#retry);
    this.#retry = null;
    void this.#sendAll();
  };

  async #sendAll(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    try {
      for (let next = this.#nextToSend(); next; next = this.#nextToSend()) {
        if (!(await this.#sendOne(next))) {
          this.#retry = setTimeout(this.flush, this.#retryMs);
          this.#retryMs = Math.min(2 * this.#retryMs, LONGEST_RETRY_MS);
          return;
        }
        this.#retryMs = FIRST_RETRY_MS;
      }
    } finally {
      this.#sending = false;
    }
  }

  #nextToSend(): Entry | undefined {
    return this.#entries.find((entry) => entry.refusal === null && entry.fact.personId === this.#personId);
  }

  /** @returns false when it is worth trying the same entry again later. */
  async #sendOne({ fact }: Entry): Promise<boolean> {
    try {
      const kept = await this.#send(fact);
      this.onKept(kept);
      await this.#change((entries) => entries.filter((entry) => entry.fact.id !== fact.id));
      this.#set(this.#entries.filter((entry) => entry.fact.id !== fact.id));
      return true;
    } catch (error) {
      if (!(error instanceof ApiProblem) || TRY_AGAIN.has(error.problem.code)) return false;
      const refusal = error.problem.fields?.[0]?.message ?? error.message;
      const mark = (entry: Entry): Entry => (entry.fact.id === fact.id ? { ...entry, refusal } : entry);
      await this.#change((entries) => entries.map(mark));
      this.#set(this.#entries.map(mark));
      return true;
    }
  }

  async #change(change: (entries: Entry[]) => Entry[]): Promise<void> {
    await this.#storage.change(change);
    this.#channel?.postMessage('changed');
  }

  #set(entries: Entry[]): void {
    this.#entries = entries;
    for (const listener of this.#listeners) listener();
  }
}
