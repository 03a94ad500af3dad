import type { findingsSchema, RecipeChange, RecipeHistory, RecipesQuery, RecipeVersion } from '@tempera/contract/house';
import type { Policies, PolicyChange } from '@tempera/contract/policy';
import type { Page } from '@tempera/contract/sheet';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { z } from 'zod';
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

/** A page of recipes; the page before stays while the next one comes. */
export function useRecipePage(query: Partial<RecipesQuery>) {
  const search = new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)])).toString();
  return useQuery({
    queryKey: ['house', 'recipes', search],
    queryFn: () => api<Page<RecipeVersion>>('GET', `/house/recipes?${search}`),
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
}

export function useRecipesInForce() {
  return useQuery({
    queryKey: ['house', 'recipesInForce'],
    queryFn: () => api<{ recipes: RecipeVersion[] }>('GET', '/house/recipes-in-force'),
    select: ({ recipes }) => recipes,
    staleTime: 60_000,
  });
}

const recipeKey = (recipeId: string | null) => ['house', 'recipe', recipeId] as const;

/** Every version of a recipe; nothing is asked for a recipe that is still to be written. */
export function useRecipe(recipeId: string | null) {
  return useQuery({
    queryKey: recipeKey(recipeId),
    queryFn: () => api<RecipeHistory>('GET', `/house/recipes/${recipeId ?? ''}`),
    enabled: recipeId !== null,
    staleTime: 30_000,
  });
}

/** Writes the next version; whoever was slower reads what the faster one wrote, and keeps what they typed. */
export function useWriteRecipe(recipeId: string) {
  const client = useQueryClient();
  const refresh = (): Promise<unknown> =>
    Promise.all([client.invalidateQueries({ queryKey: ['house'] }), client.invalidateQueries({ queryKey: ['bar'] })]);
  return useMutation({
    mutationFn: (change: RecipeChange) => api<RecipeHistory>('POST', `/house/recipes/${recipeId}`, change),
    onSuccess: (history) => {
      client.setQueryData(recipeKey(recipeId), history);
      return refresh();
    },
    onError: refresh,
  });
}

/** What in the house does not go together. */
export function useFindings() {
  return useQuery({
    queryKey: ['house', 'findings'],
    queryFn: () => api<z.infer<typeof findingsSchema>>('GET', '/house/findings'),
    staleTime: 60_000,
  });
}
