import { later } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';

export const tasteRoom: Room = {
  pages: [
    { path: '/taste/:grinderId', load: async () => (await import('./TastePage.tsx')).TastePage },
    { path: '/taste/trial/:coffeeId', load: async () => (await import('./TrialPage.tsx')).TrialPage },
  ],
  reads: [],
  slots: { recipeAim: later(async () => (await import('./RecipeAim.tsx')).RecipeAim) },
};
