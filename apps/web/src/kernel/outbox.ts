import type { NewEntry, RecordedEntry } from '@tempera/contract/journal';
import type { ProblemCode } from '@tempera/contract/problem';
import { goesByName } from '@tempera/contract/rights';
import { ApiProblem } from './api.ts';

/** A fact that was written here and has not been confirmed by the server. */
export interface Entry {
  /** It names its author, and is sent under their session only. */
  fact: NewEntry;
  /** Set when the server refused it: it stays until somebody looks at it. */
  refusal: string | null;
  /** Why, as the wire names it; absent in entries of an earlier version of the page. */
  code?: ProblemCode;
  /** The house has it by its author's name alone: it is sent once more under their PIN. */
  told?: true;
}

/** Where entries outlive a reload. Handed in, so that tests need no browser. */
export interface OutboxStorage {
  /** All that wait, in the order in which they were added. */
  read(): Promise<Entry[]>;
  /** Those that it knows already stay as they are. */
  add(entries: readonly Entry[]): Promise<void>;
  /** Those that still wait are from now on as given. */
  replace(entries: readonly Entry[]): Promise<void>;
  remove(factIds: readonly string[]): Promise<void>;
  /** Notes at once what `add` will keep, so that a page closed in this very moment loses nothing. */
  jot?(facts: readonly NewEntry[]): void;
}

const FIRST_RETRY_MS = 1_000;
const LONGEST_RETRY_MS = 30_000;
/** Refusals that are about the moment, not about the fact. */
const TRY_AGAIN = new Set<ProblemCode>(['notReady', 'tooManyRequests', 'signInFirst', 'notYours']);
/**
 * Where many go one after the other, what went is written down and told so often: each time costs a drawing of all that is shown,
 * and a shift of two thousand entries would take a quarter of an hour.
 */
const SETTLES_EVERY_MS = 2_000;
/** The server stumbles over an entry so often before it steps aside for the others. */
const STUMBLES = 3;

/** Entries of an earlier version of the page carry their author beside them. */
function signed(entry: Entry & { personId?: string }): Entry {
  const { personId, fact, refusal } = entry;
  return personId === undefined ? entry : { fact: { ...fact, personId, skewMs: null }, refusal };
}

type Send = (fact: NewEntry) => Promise<RecordedEntry>;
/** How entries go out while their author stands here by name alone; absent: they wait. */
const NOBODY_TELLS: Send = () => Promise.reject(new TypeError('outbox: nothing is told by name here'));

/**
 * The one place through which every fact is written. Entries are kept first, then sent in order, one at a time, again
 * and again until the server has them; only the signed-in person's own are sent.
 */
export class Outbox {
  #entries: Entry[] = [];
  #listeners = new Set<() => void>();
  #personId: string | null = null;
  #namedId: string | null = null;
  /** Told by name, and not written down so yet; and what the house would not take so. */
  readonly #told = new Set<string>();
  readonly #waitsForPin = new Set<string>();
  #knowsTablet = true;
  #sending = false;
  #askedAgain = false;
  #retry: ReturnType<typeof setTimeout> | null = null;
  #retryMs = FIRST_RETRY_MS;
  readonly #stumbles = new Map<string, number>();
  readonly #storage: OutboxStorage;
  readonly #send: Send;
  readonly #tell: Send;
  readonly #channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('tempera-outbox');
  #onItsWay: string | null = null;
  /** Facts that the server has, and that were not told of yet. */
  #kept: RecordedEntry[] = [];
  /** Called with facts once the server has them, in the order in which they went. */
  onKept: (facts: readonly RecordedEntry[]) => void = () => undefined;
  /** Called with each entry that the server refuses, and why. */
  onRefused: (fact: NewEntry, code: ProblemCode) => void = () => undefined;

  constructor(storage: OutboxStorage, send: Send, tell = NOBODY_TELLS) {
    this.#storage = storage;
    this.#send = send;
    this.#tell = tell;
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

  /** Who stands here by name alone: what they do is told as unconfirmed, and waits for their PIN here; null: nobody. */
  named(personId: string | null): void {
    this.#namedId = personId;
    this.flush();
  }

  /** Keeps facts for sending, in the order given. Resolves when they would survive a reload. */
  async add(facts: readonly NewEntry[]): Promise<void> {
    const added = facts.map((fact) => ({ fact, refusal: null }));
    this.#storage.jot?.(facts);
    const waiting = new Set(this.#entries.map(({ fact }) => fact.id));
    this.#set([...this.#entries, ...added.filter(({ fact }) => !waiting.has(fact.id))]);
    await this.#written(this.#storage.add(added));
    this.flush();
  }

  /** Lets a refused entry go. */
  async discard(factId: string): Promise<void> {
    await this.#written(this.#storage.remove([factId]));
    await this.load();
  }

  /** Sends a refused entry again, with a second person's yes where it wanted one. */
  async sendAgain(factId: string, yesId?: string): Promise<void> {
    this.#stumbles.delete(factId);
    const again = this.#entries
      .filter(({ fact }) => fact.id === factId)
      .map(({ fact }) => ({ fact: { ...fact, ...(yesId === undefined ? {} : { yesId }) }, refusal: null }));
    await this.#written(this.#storage.replace(again));
    await this.load();
    this.flush();
  }

  /** Sends what waits, now. */
  readonly flush = (): void => {
    if (this.#retry) clearTimeout(this.#retry);
    this.#retry = null;
    void this.#sendAll();
  };

  /** One tab at a time: what the others wrote is in the same store, and goes with it. */
  async #sendAll(): Promise<void> {
    this.#askedAgain = this.#sending;
    if (this.#sending) return;
    this.#sending = true;
    try {
      const locks = typeof navigator === 'undefined' ? undefined : (navigator as { locks?: LockManager }).locks;
      if (!locks) await this.#sendInTurn();
      else {
        const sent = await locks.request('tempera-outbox', { ifAvailable: true }, async (lock) => {
          if (lock) await this.#sendInTurn();
          return lock !== null;
        });
        if (!sent && this.#nextToSend()) this.#retry = setTimeout(this.flush, FIRST_RETRY_MS);
      }
    } finally {
      this.#sending = false;
    }
    // Asked while the last look was over and not yet done: somebody else stands here since.
    if (this.#askedAgain && this.#retry === null) await this.#sendAll();
  }

  /** Whether it is on its way from here, or has gone and is told of in a moment. What another tab sends is not. */
  readonly isSending = (factId: string): boolean =>
    this.#onItsWay === factId || this.#kept.some(({ id }) => id === factId);

  async #sendInTurn(): Promise<void> {
    let settledMs = performance.now();
    for (let next = this.#nextToSend(); next; next = this.#nextToSend()) {
      const went = await this.#sendOne(next);
      const isLast = !went || !this.#nextToSend();
      if (isLast || performance.now() - settledMs > SETTLES_EVERY_MS) {
        await this.#settle();
        settledMs = performance.now();
      }
      if (!went) {
        this.#retry = setTimeout(this.flush, this.#retryMs);
        this.#retryMs = Math.min(2 * this.#retryMs, LONGEST_RETRY_MS);
        return;
      }
      this.#retryMs = FIRST_RETRY_MS;
    }
  }

  #nextToSend(): Entry | undefined {
    const gone = new Set(this.#kept.map(({ id }) => id));
    return this.#entries.find(
      (entry) =>
        entry.refusal === null &&
        !gone.has(entry.fact.id) &&
        (entry.fact.personId === this.#personId || this.#isToldByName(entry)),
    );
  }

  #isToldByName({ fact, told }: Entry): boolean {
    if (fact.personId !== this.#namedId || !this.#knowsTablet || told) return false;
    return goesByName(fact) && !this.#told.has(fact.id) && !this.#waitsForPin.has(fact.id);
  }

  /** Tells of what went, and lets go of it. A page closed before sends it again, and the server knows it. */
  async #settle(): Promise<void> {
    const kept = this.#kept;
    await this.#settleTold();
    if (kept.length === 0) return;
    const gone = new Set(kept.map(({ id }) => id));
    this.onKept(kept);
    // A store that is out of order holds nobody up: what it could not let go of is sent again by the next page.
    await this.#written(this.#storage.remove([...gone])).catch(() => undefined);
    this.#kept = this.#kept.filter(({ id }) => !gone.has(id));
    this.#set(this.#entries.filter(({ fact }) => !gone.has(fact.id)));
  }

  async #settleTold(): Promise<void> {
    if (this.#told.size === 0) return;
    const mark = (entry: Entry): Entry => (this.#told.has(entry.fact.id) ? { ...entry, told: true } : entry);
    const marked = this.#entries.filter(({ fact }) => this.#told.has(fact.id)).map(mark);
    await this.#written(this.#storage.replace(marked)).catch(() => undefined);
    this.#set(this.#entries.map(mark));
    this.#told.clear();
  }

  /** @returns false when it is worth trying the same entry again later. */
  async #tellOne({ fact }: Entry): Promise<boolean> {
    try {
      await this.#tell(fact);
      this.#told.add(fact.id);
      return true;
    } catch (error) {
      if (!(error instanceof ApiProblem) || TRY_AGAIN.has(error.problem.code)) return false;
      // A house without tablets of its own takes nothing by name; all else is between its author and the house, once they are known.
      if (error.problem.code === 'deviceUnknown') this.#knowsTablet = false;
      this.#waitsForPin.add(fact.id);
      return true;
    }
  }

  /** @returns false when it is worth trying the same entry again later. */
  async #sendOne(entry: Entry): Promise<boolean> {
    const { fact } = entry;
    if (fact.personId !== this.#personId) return this.#tellOne(entry);
    this.#onItsWay = fact.id;
    try {
      this.#kept.push(await this.#send(fact));
      return true;
    } catch (error) {
      if (!(error instanceof ApiProblem) || TRY_AGAIN.has(error.problem.code)) return false;
      const { code, fields } = error.problem;
      if (code === 'internal' && !this.#hasStumbled(fact.id)) return false;
      const refusal = fields?.[0]?.message ?? error.message;
      const refused: Entry = { ...entry, refusal, code };
      await this.#written(this.#storage.replace([refused]));
      this.#set(this.#entries.map((one) => (one.fact.id === fact.id ? refused : one)));
      this.onRefused(fact, code);
      return true;
    } finally {
      this.#onItsWay = null;
    }
  }

  /** Whether the server has stumbled over an entry often enough for it to step aside. */
  #hasStumbled(factId: string): boolean {
    const times = (this.#stumbles.get(factId) ?? 0) + 1;
    this.#stumbles.set(factId, times);
    return times >= STUMBLES;
  }

  /** Tells other tabs once it is written. */
  async #written(writing: Promise<void>): Promise<void> {
    await writing;
    this.#channel?.postMessage('changed');
  }

  #set(entries: Entry[]): void {
    this.#entries = entries;
    for (const listener of this.#listeners) listener();
  }
}
