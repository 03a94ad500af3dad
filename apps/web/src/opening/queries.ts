import type { OpeningHistory } from '@tempera/contract/opening';
import { useQuery } from '@tanstack/react-query';
import { api } from '../shell/api.ts';

/** How long jobs took on earlier mornings. */
export function useHistory() {
  return useQuery({
    queryKey: ['opening', 'history'],
    queryFn: () => api<OpeningHistory>('GET', '/opening/history'),
    staleTime: 3_600_000,
  });
}
