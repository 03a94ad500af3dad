import type { Policies, PolicyChange } from '@tempera/contract/policy';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../shell/api.ts';

const policiesKey = ['house', 'policies'] as const;

export function usePolicies() {
  return useQuery({
    queryKey: policiesKey,
    queryFn: () => api<Policies>('GET', '/house/policies'),
    staleTime: 60_000,
  });
}

/** Saves the next version; whoever was slower reads what the faster one wrote, and keeps what they typed. */
export function useChangePolicy() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (change: PolicyChange) => api<Policies>('POST', '/house/policies', change),
    onSuccess: async (policies) => {
      client.setQueryData(policiesKey, policies);
      await client.invalidateQueries({ queryKey: ['bar'] });
    },
    onError: () => client.invalidateQueries({ queryKey: policiesKey }),
  });
}
