import { useQuery } from '@tanstack/react-query';
import { call } from '../kernel/api.ts';

/** How long jobs took on earlier mornings. */
export function useHistory() {
  return useQuery({
    queryKey: ['opening', 'history'],
    queryFn: () => call('GET /opening/history'),
    staleTime: 3_600_000,
  });
}
