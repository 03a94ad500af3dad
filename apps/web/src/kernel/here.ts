/** What this device holds of something that is under way: a reload takes it up again. */

/** @returns what is kept under a key; null where nothing is, or nothing that can be read */
export function readHere(key: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null');
  } catch {
    return null;
  }
}

/** Keeps it, where anything can be kept; null forgets it. */
export function keepHere(key: string, value: object | null): void {
  try {
    if (value) localStorage.setItem(key, JSON.stringify(value));
    else localStorage.removeItem(key);
  } catch {
    // A private window, or a device that is full: what is under way goes on, and is lost with the page.
  }
}
