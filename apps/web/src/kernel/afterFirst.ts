import { startTransition, useEffect, useState, type ReactNode } from 'react';

/** Whether the first drawing is over: what nobody looks at yet is made after it, where a finger should not wait for it. */
export function useAfterFirst(): boolean {
  const [after, setAfter] = useState(false);
  useEffect(() => {
    const next = setTimeout(() => startTransition(() => setAfter(true)));
    return () => clearTimeout(next);
  }, []);
  return after;
}

/** What opens only when it is asked for: a closed dialog sets a state as it is made, and the whole page is drawn again with it. */
export const AfterFirst = ({ children }: { children: ReactNode }): ReactNode => (useAfterFirst() ? children : null);
