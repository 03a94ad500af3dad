import type { RecipeChange } from '@tempera/contract/house';
import type { PolicyChange } from '@tempera/contract/policy';
import type { AskedOf } from '@tempera/contract/routes';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../kernel/api.ts';

const policiesKey = ['house', 'policies'] as const;

export function usePolicies() {
  return useQuery({
    queryKey: policiesKey,
    queryFn: () => call('GET /house/policies'),
    staleTime: 60_000,
  });
}

/** Saves the next version; whoever was slower reads what the faster one wrote, and keeps what they typed. */
export function useChangePolicy() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (change: PolicyChange) => call('POST /house/policies', { body: change }),
    onSuccess: async (policies) => {
      client.setQueryData(policiesKey, policies);
      await client.invalidateQueries({ queryKey: ['bar'] });
    },
    onError: () => client.invalidateQueries({ queryKey: policiesKey }),
  });
}

type RecipesAsked = AskedOf<'GET /house/recipes'>['query'];

/** The recipes as their page opens. */
export const firstRecipes = {
  search: '',
  sort: 'name',
  descending: false,
  page: 1,
  perPage: 25,
  retired: false,
} as const satisfies RecipesAsked;

const recipePage = (query: RecipesAsked) => ({
  queryKey: ['house', 'recipes', query],
  queryFn: () => call('GET /house/recipes', { query }),
});
export const firstRecipesRead = recipePage(firstRecipes);

/** A page of recipes; the page before stays while the next one comes. */
export function useRecipePage(query: RecipesAsked) {
  return useQuery({
    ...recipePage(query),
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
}

export function useRecipesInForce() {
  return useQuery({
    queryKey: ['house', 'recipesInForce'],
    queryFn: () => call('GET /house/recipes-in-force'),
    select: ({ recipes }) => recipes,
    staleTime: 60_000,
  });
}

const recipeKey = (recipeId: string | null) => ['house', 'recipe', recipeId] as const;
export const recipeRead = (recipeId: string | null) => ({
  queryKey: recipeKey(recipeId),
  queryFn: () => call('GET /house/recipes/{recipeId}', { params: { recipeId: recipeId ?? '' } }),
});

/** Every version of a recipe; nothing is asked for a recipe that is still to be written. */
export function useRecipe(recipeId: string | null) {
  return useQuery({
    ...recipeRead(recipeId),
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
    mutationFn: (change: RecipeChange) =>
      call('POST /house/recipes/{recipeId}', { params: { recipeId }, body: change }),
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
    queryFn: () => call('GET /house/findings'),
    staleTime: 60_000,
  });
}
