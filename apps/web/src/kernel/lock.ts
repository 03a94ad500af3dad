import { useSyncExternalStore } from 'react';

/** This tablet is locked: its session has ended, and the page with all that is on it waits for a PIN. Kept, so that a reload opens nothing. */
const LOCKED = 'tempera.locked';
const listeners = new Set<() => void>();

export const isLocked = (): boolean => localStorage.getItem(LOCKED) !== null;

export function setLocked(locked: boolean): void {
  if (locked === isLocked()) return;
  if (locked) localStorage.setItem(LOCKED, 'yes');
  else localStorage.removeItem(LOCKED);
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  // Another tab of this tablet is locked and opened with it.
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
}

export const useLocked = (): boolean => useSyncExternalStore(subscribe, isLocked);
