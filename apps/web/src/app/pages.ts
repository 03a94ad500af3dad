import { lazy } from 'react';
import { matchPath } from 'react-router';
import { fetchedOnce } from '../kernel/later.tsx';
import { fetchSlots, fetchSlotsAt } from '../kernel/slots.tsx';
import { rooms, slots } from './rooms.ts';

/** Every page of every room, each in a piece of code of its own. */
export const pages = rooms
  .flatMap((room) => room.pages)
  .map(({ load, ...page }) => {
    const fetch = fetchedOnce(async () => (await Promise.all([load(), fetchSlotsAt(page.path, slots)]))[0]);
    return { ...page, fetch, Page: lazy(async () => ({ default: await fetch() })) };
  });

const soon = (page: (typeof pages)[number]): void => void page.fetch().catch(() => undefined);

/** Begins to fetch the page of an address while it is still found out who asks. */
export function fetchPageAt(pathname: string): void {
  for (const page of pages) if (matchPath(page.path, pathname) !== null) soon(page);
}

/** Idle or not, by then the next page is on its way. */
const LATEST_MS = 4_000;

/**
 * Fetches what nobody should wait for, once the device is idle: the next pages, and what rooms hang into a page that stands. Such a
 * part may be called for by news, and a page that had to wait for it then would be gone from under a finger.
 */
export function fetchSoon(): void {
  const begin = (): void => {
    for (const page of pages) if (page.soon) soon(page);
    void fetchSlots(slots, slots.flatMap(Object.keys));
  };
  // Not every browser tells when it is idle.
  if (typeof requestIdleCallback === 'undefined') setTimeout(begin, LATEST_MS);
  else requestIdleCallback(begin, { timeout: LATEST_MS });
}
