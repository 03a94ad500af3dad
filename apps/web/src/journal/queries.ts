import type { JournalPage } from '@tempera/contract/journal';
import { keepPreviousData, useInfiniteQuery, type QueryClient } from '@tanstack/react-query';
import { api } from '../shell/api.ts';

export interface JournalFilters {
  grinderId: string | null;
  groupId: string | null;
  personId: string | null;
  kind: string | null;
}

export function useJournal(filters: JournalFilters) {
  return useInfiniteQuery({
    queryKey: ['journal', filters],
    initialPageParam: null as number | null,
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) => {
      const search = new URLSearchParams();
      for (const [name, value] of Object.entries(filters)) if (value) search.set(name, String(value));
      if (pageParam !== null) search.set('beforeSeq', String(pageParam));
      return api<JournalPage>('GET', `/journal?${search.toString()}`);
    },
    getNextPageParam: (page) => page.nextBeforeSeq,
  });
}

export function refreshJournal(client: QueryClient): void {
  void client.invalidateQueries({ queryKey: ['journal'] });
}
