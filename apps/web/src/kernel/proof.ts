import { useSyncExternalStore } from 'react';

/** Whether somebody gives their PIN once more: asked by whatever the server wants it for, answered by the form that is shown. */

let waiting: { promise: Promise<boolean>; answer: (given: boolean) => void } | null = null;
const listeners = new Set<() => void>();

function change(next: typeof waiting): void {
  waiting = next;
  for (const listener of listeners) listener();
}

/** Asks for the PIN of whoever is signed in; all that ask at once wait for one answer. @returns whether it was given */
export function askProof(): Promise<boolean> {
  if (waiting) return waiting.promise;
  // Where no page shows the form, nobody can answer.
  if (listeners.size === 0) return Promise.resolve(false);
  let answer: (given: boolean) => void = () => undefined;
  const promise = new Promise<boolean>((resolve) => {
    answer = resolve;
  });
  change({ promise, answer });
  return promise;
}

/** The PIN was given, or it will not be. */
export function answerProof(given: boolean): void {
  const asked = waiting;
  change(null);
  asked?.answer(given);
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether something waits for it. */
export const useProofAsked = (): boolean => useSyncExternalStore(subscribe, () => waiting !== null);
