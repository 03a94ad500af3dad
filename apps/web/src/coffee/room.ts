import { later, withPage } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';
import { call } from '../kernel/api.ts';
import { firstBagsRead } from './queries.ts';
import { keepsHouse, keptSheets } from '../kernel/sheets.ts';

export const coffeeRoom: Room = {
  pages: [
    { path: '/coffee', load: async () => (await import('./CoffeePage.tsx')).CoffeePage },
    { path: '/coffee/bags', load: async () => (await import('./BagsPage.tsx')).BagsPage },
    { path: '/coffee/bags/:id', load: async () => (await import('./SheetPages.tsx')).BagSheetPage },
    { path: '/coffee/coffees/:id', load: async () => (await import('./SheetPages.tsx')).CoffeeSheetPage },
    { path: '/coffee/use', load: async () => (await import('./UsePage.tsx')).UsePage },
  ],
  nav: { label: 'Coffee', to: '/coffee', key: 'c', does: 'to the coffees' },
  does: [
    { id: 'take-in', label: 'Take a bag in', to: '/coffee/bags/new' },
    { id: 'new-coffee', label: 'Add a coffee', to: '/coffee/coffees/new', may: keepsHouse },
    { id: 'bags', label: 'Bags', to: '/coffee/bags' },
    { id: 'use', label: 'What calibrating takes', to: '/coffee/use' },
  ],
  hits: { coffee: { word: 'Coffee', path: (id) => `/coffee/coffees/${id}` } },
  reads: ['coffee'],
  shows: ['coffee', 'bag', 'recipe', 'drink', 'grinder', 'cafe'],
  keeps: () => [
    { queryKey: ['coffee', 'stock'], queryFn: () => call('GET /coffee/stock') },
    { queryKey: ['coffee', 'use'], queryFn: () => call('GET /coffee/use') },
    firstBagsRead,
    ...keptSheets('coffee'),
  ],
  slots: {
    homeFirst: withPage(async () => (await import('./FirstThings.tsx')).FirstThings),
    grinderHolds: later(async () => (await import('./HopperButton.tsx')).HopperButton),
  },
};
