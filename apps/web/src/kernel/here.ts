/** What this device holds of something that is under way: a reload takes it up again. */

/** @returns what is kept under a key; null where nothing is, or nothing that can be read */
export function readHere(key: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null');
  } catch {
    return null;
  }
}

/** Keeps it; null forgets it. */
export function keepHere(key: string, value: object | null): void {
  if (value) localStorage.setItem(key, JSON.stringify(value));
  else localStorage.removeItem(key);
}
