import type { QueryClient } from '@tanstack/react-query';
import { rooms } from './rooms.ts';

/** The first view, and whatever somebody taps at once, come first. */
const AFTER_MS = 6_000;

/**
 * Reads what every page needs and nobody has asked for yet, one after another, so that each stands when the server is gone.
 * @returns what calls it off
 */
export function readSoon(client: QueryClient): () => void {
  let off = false;
  const read = async (): Promise<void> => {
    for (const { queryKey, queryFn } of rooms.flatMap((room) => room.keeps?.(client) ?? [])) {
      if (off) return;
      if (client.getQueryData(queryKey) !== undefined) continue;
      await client.query({ queryKey, queryFn, retry: false }).catch(() => undefined);
    }
  };
  const later = setTimeout(() => void read(), AFTER_MS);
  return () => {
    off = true;
    clearTimeout(later);
  };
}
