import { grindersRead } from '../bar/index.ts';
import { call } from '../kernel/api.ts';
import { later, withPage } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';

export const dayRoom: Room = {
  pages: [
    { path: '/day', load: async () => (await import('./HistoryPage.tsx')).HistoryPage },
    { path: '/day/handover', load: async () => (await import('./HandOverPage.tsx')).HandOverPage },
    { path: '/day/:grinderId', load: async () => (await import('./HistoryPage.tsx')).HistoryPage },
  ],
  does: [
    { id: 'history', label: 'How the grinders ran', to: '/day' },
    { id: 'handover', label: 'Hand-over', to: '/day/handover' },
  ],
  reads: ['day'],
  keeps: (client) =>
    grindersRead(client).map((grinderId) => ({
      queryKey: ['day', 'history', grinderId, '7'],
      queryFn: () => call('GET /day/history', { query: { grinderId, days: 7 } }),
    })),
  slots: {
    homeDay: withPage(async () => (await import('./DayOnHome.tsx')).DayOnHome),
    coffeeNotes: later(async () => (await import('./CoffeeNotes.tsx')).CoffeeNotes),
  },
};
