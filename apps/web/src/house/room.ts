import { recipesHeld } from '../bar/index.ts';
import { call } from '../kernel/api.ts';
import { keptSheets } from '../kernel/sheets.ts';
import type { Room } from '../kernel/room.ts';
import { firstRecipesRead, recipeRead } from './queries.ts';

export const houseRoom: Room = {
  pages: [
    { path: '/house', load: async () => (await import('./RecipesPage.tsx')).RecipesPage },
    { path: '/house/recipes/new', load: async () => (await import('./RecipeEditPage.tsx')).RecipeEditPage },
    { path: '/house/recipes/:recipeId', load: async () => (await import('./RecipePage.tsx')).RecipePage },
    { path: '/house/recipes/:recipeId/edit', load: async () => (await import('./RecipeEditPage.tsx')).RecipeEditPage },
    { path: '/house/drinks', load: async () => (await import('./DrinksPage.tsx')).DrinksPage },
    { path: '/house/drinks/:id', load: async () => (await import('./DrinkSheetPage.tsx')).DrinkSheetPage },
    { path: '/house/policies', load: async () => (await import('./PoliciesPage.tsx')).PoliciesPage },
    { path: '/house/wall', load: async () => (await import('./WallCardPage.tsx')).WallCardPage },
    { path: '/house/cafe', load: async () => (await import('./CafePage.tsx')).CafePage },
  ],
  nav: { label: 'House', to: '/house', key: 'h', does: 'to the house book' },
  does: [
    {
      id: 'new-recipe',
      label: 'Write a recipe',
      to: '/house/recipes/new',
      may: ({ person }) => person.role === 'head',
    },
    { id: 'wall', label: 'Print the wall card', to: '/house/wall' },
    { id: 'drinks', label: 'Drinks and the pace', to: '/house/drinks' },
    { id: 'policies', label: 'How the house decides', to: '/house/policies' },
    { id: 'cafe', label: 'The café: clock, height, money', to: '/house/cafe' },
  ],
  hits: {
    recipe: { word: 'Recipe', path: (id) => `/house/recipes/${id}` },
    drink: { word: 'Drink', path: (id) => `/house/drinks/${id}` },
  },
  reads: ['house'],
  shows: ['recipe', 'policies', 'drink', 'coffee', 'basket', 'grinder', 'group', 'machine', 'cafe'],
  keeps: (client) => [
    firstRecipesRead,
    ...recipesHeld(client).map(recipeRead),
    { queryKey: ['house', 'policies'], queryFn: () => call('GET /house/policies') },
    { queryKey: ['house', 'recipesInForce'], queryFn: () => call('GET /house/recipes-in-force') },
    { queryKey: ['house', 'findings'], queryFn: () => call('GET /house/findings') },
    ...keptSheets('drink', 'cafe'),
  ],
};
