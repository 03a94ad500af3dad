import { useLayoutEffect, useRef, type MouseEvent } from 'react';

/** The second half of a double tap comes within this time. */
const SETTLES_MS = 350;

/**
 * For what stands in an order that changes under a hand: a tap that comes at once after it changed was meant for what stood there
 * before, and does nothing. @param order changes whenever something may have moved
 * @returns what the element about it is given
 */
export function useSettled(order: string): { onClickCapture: (event: MouseEvent) => void } {
  const before = useRef(order);
  const changedAtMs = useRef(-Infinity);
  useLayoutEffect(() => {
    if (before.current === order) return;
    before.current = order;
    changedAtMs.current = performance.now();
  }, [order]);
  return {
    onClickCapture: (event) => {
      if (performance.now() - changedAtMs.current >= SETTLES_MS) return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}
