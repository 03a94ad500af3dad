import { lazy } from 'react';
import { matchPath } from 'react-router';
import { rooms } from './rooms.ts';

/** Every page of every room, each in a piece of code of its own. */
export const pages = rooms
  .flatMap((room) => room.pages)
  .map(({ load, ...page }) => {
    let fetched: ReturnType<typeof load> | null = null;
    // Fetched once, however many ask; a fetch that failed is tried again.
    const fetch = (): ReturnType<typeof load> =>
      (fetched ??= load().catch((error: unknown) => {
        fetched = null;
        throw error;
      }));
    return { ...page, fetch, Page: lazy(async () => ({ default: await fetch() })) };
  });

const soon = (page: (typeof pages)[number]): void => void page.fetch().catch(() => undefined);

/** Begins to fetch the page of an address while it is still found out who asks. */
export function fetchPageAt(pathname: string): void {
  for (const page of pages) if (matchPath(page.path, pathname) !== null) soon(page);
}

/** Fetches the pages that nobody should wait for, once the first one stands. */
export function fetchSoon(): void {
  for (const page of pages) if (page.soon) soon(page);
}
