import { useEffect, useState } from 'react';

/**
 * How many of a screen's parts may be drawn: one at first, then one more after each picture the browser has made. A tablet
 * so shows the part in hand before it lays out the others, and a finger is heard between any two of them.
 * @param parts how many there are
 */
export function useStaged(parts: number): number {
  const [drawn, setDrawn] = useState(1);
  useEffect(() => {
    if (drawn >= parts) return undefined;
    // A frame first, then a task of its own: an effect alone would run before anything is on the screen.
    let later: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      later = setTimeout(() => setDrawn(drawn + 1));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(later);
    };
  }, [drawn, parts]);
  return drawn;
}
