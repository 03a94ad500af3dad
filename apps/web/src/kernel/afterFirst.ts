import { useEffect, useState } from 'react';

/** Whether the first drawing is over: what nobody looks at yet is made after it, where a finger should not wait for it. */
export function useAfterFirst(): boolean {
  const [after, setAfter] = useState(false);
  useEffect(() => {
    const next = setTimeout(() => setAfter(true));
    return () => clearTimeout(next);
  }, []);
  return after;
}
