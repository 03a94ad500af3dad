import type { QueryClient, QueryKey } from '@tanstack/react-query';

/**
 * Adds a piece of news to what was read. The whole grows no younger by it, and no fresher: when the stream is open again it is
 * still known since when news may have been missed.
 * @param add gives the very same where there is nothing to add
 */
export function addToRead<T>(client: QueryClient, queryKey: QueryKey, add: (data: T) => T): void {
  const read = client.getQueryState<T>(queryKey);
  if (read?.data === undefined) return;
  const next = add(read.data);
  if (next === read.data) return;
  client.setQueryData<T>(queryKey, next, { updatedAt: read.dataUpdatedAt });
  if (read.isInvalidated) void client.invalidateQueries({ queryKey, exact: true, refetchType: 'none' });
}
