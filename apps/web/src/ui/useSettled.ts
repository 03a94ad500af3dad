import { useLayoutEffect, useRef, type RefObject } from 'react';

/** The second half of a double tap comes within this time. */
const SETTLES_MS = 350;

/**
 * For what stands in an order that changes under a hand: a tap that comes at once after it changed was meant for what stood there
 * before, and touches nothing. Keys are heard: they go to what has the focus, wherever it stands.
 * @param order changes whenever something may have moved
 * @returns what the element about it is given
 */
export function useSettled<T extends HTMLElement>(order: string): RefObject<T | null> {
  const about = useRef<T>(null);
  const before = useRef(order);
  useLayoutEffect(() => {
    if (before.current === order || !about.current) return undefined;
    before.current = order;
    const { style } = about.current;
    style.pointerEvents = 'none';
    const settled = setTimeout(() => (style.pointerEvents = ''), SETTLES_MS);
    return () => {
      clearTimeout(settled);
      style.pointerEvents = '';
    };
  }, [order]);
  return about;
}
