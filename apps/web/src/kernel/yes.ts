import type { NewEntry } from '@tempera/contract/journal';
import { actOf, rights } from '@tempera/contract/rights';
import type { Role } from '@tempera/contract/team';
import { useSyncExternalStore } from 'react';

/** Entries that wait for a second person's yes, and who may give it. */
export interface Asked {
  entries: readonly NewEntry[];
  roles: readonly Role[];
  /** Whether whoever says yes is to be signed off for what these decide: the house asks for that. */
  trained?: boolean;
}

let asked: Asked | null = null;
const listeners = new Set<() => void>();

/** Asks for a second person's yes; null: it is given, or nobody wants it any more. */
export function askYes(next: Asked | null): void {
  asked = next;
  for (const listener of listeners) listener();
}

/** Asks for the yes of somebody who is signed off for what this entry decides: the server refused it without. */
export function askTrained(entry: NewEntry): void {
  const act = actOf(entry);
  if (act) askYes({ entries: [entry], roles: rights[act].write, trained: true });
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** What waits for a second person's yes; null: nothing. */
export const useAsked = (): Asked | null => useSyncExternalStore(subscribe, () => asked);

/**
 * Roles of which somebody must say yes before this role may write these entries; null: nobody needs to. What undoes
 * another's entry is judged by the server, which knows whose it is.
 */
export function rolesNeeded(role: Role, entries: readonly { kind: string; body: object }[]): readonly Role[] | null {
  const refused = entries.flatMap((entry) => {
    const act = actOf(entry);
    return act !== null && !rights[act].write.includes(role) ? [rights[act].write] : [];
  });
  return refused[0] ?? null;
}
