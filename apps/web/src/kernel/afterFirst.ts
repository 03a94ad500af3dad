import { startTransition, useEffect, useState, type ReactNode } from 'react';

/** A page whose code cannot be had keeps the rest waiting no longer than this. */
const LATEST_MS = 4_000;

let stands = false;
const waiting = new Set<() => void>();
function pageStands(): void {
  stands = true;
  for (const listener of waiting) listener();
  waiting.clear();
}

/** Calls back once the first page stands: whatever nobody waits for would delay it. @returns what calls it off */
export function afterFirstPage(go: () => void): () => void {
  if (stands) {
    go();
    return () => undefined;
  }
  const once = (): void => {
    clearTimeout(latest);
    waiting.delete(once);
    go();
  };
  const latest = setTimeout(once, LATEST_MS);
  waiting.add(once);
  return () => {
    clearTimeout(latest);
    waiting.delete(once);
  };
}

/** Stands beside a page, where that is waited for, and says when it is drawn. */
export function FirstPage(): null {
  useEffect(() => {
    const next = setTimeout(pageStands);
    return () => clearTimeout(next);
  }, []);
  return null;
}

/** Whether the first drawing is over: what nobody looks at yet is made after it, where a finger should not wait for it. */
export function useAfterFirst(): boolean {
  const [after, setAfter] = useState(false);
  useEffect(() => {
    const next = setTimeout(() => startTransition(() => setAfter(true)));
    return () => clearTimeout(next);
  }, []);
  return after;
}

/** Whether the first page stands. */
export function useFirstPage(): boolean {
  const [after, setAfter] = useState(stands);
  useEffect(() => afterFirstPage(() => startTransition(() => setAfter(true))), []);
  return after;
}

/** What opens only when it is asked for: a closed dialog sets a state as it is made, and the whole page is drawn again with it. */
export const AfterFirst = ({ children }: { children: ReactNode }): ReactNode => (useFirstPage() ? children : null);
