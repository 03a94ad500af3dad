import { keepsHouse } from '../kernel/sheets.ts';
import type { Room } from '../kernel/room.ts';
import { barKeeps, readBarAhead, takeIntoBar } from './queries.ts';

export const barRoom: Room = {
  pages: [
    { path: '/', load: async () => (await import('./HomePage.tsx')).HomePage },
    { path: '/plan', load: async () => (await import('./PlanPage.tsx')).PlanPage },
    { path: '/bar', load: async () => (await import('./PiecesPage.tsx')).PiecesPage },
    { path: '/bar/upkeep', load: async () => (await import('./UpkeepPage.tsx')).UpkeepPage },
    { path: '/bar/:kind/:id', load: async () => (await import('./PiecePage.tsx')).PiecePage },
  ],
  nav: { label: 'Bar', to: '/', key: 'b', does: 'to the bar' },
  keys: [
    { keys: 'n', does: 'to the next thing to do', where: 'bar' },
    { keys: 'p', does: 'to the plan', where: 'bar' },
    { keys: 'u', does: 'undo a move; r does it again', where: 'plan' },
  ],
  does: [
    { id: 'plan', label: 'Move things on the plan', to: '/plan', may: keepsHouse },
    { id: 'upkeep', label: 'What is kept up, and when', to: '/bar/upkeep' },
    { id: 'pieces', label: 'The bar, piece by piece', to: '/bar' },
  ],
  reads: ['bar'],
  shows: [
    'machine',
    'group',
    'grinder',
    'counter',
    'fixture',
    'basket',
    'coffee',
    'bag',
    'recipe',
    'policies',
    'plan',
    'cafe',
    'memory',
  ],
  readAhead: readBarAhead,
  keeps: barKeeps,
  onFact: takeIntoBar,
};
