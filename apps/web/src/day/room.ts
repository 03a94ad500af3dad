import { controllerFetched, grindersRead } from '../bar/index.ts';
import { call } from '../kernel/api.ts';
import { keptSheets } from '../kernel/sheets.ts';
import { later, withPage } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';
import { morningsRead } from './queries.ts';

export const dayRoom: Room = {
  pages: [
    { path: '/day', load: async () => (await import('./HistoryPage.tsx')).HistoryPage },
    { path: '/day/mornings', load: async () => (await import('./MorningsPage.tsx')).MorningsPage },
    { path: '/day/handover', load: async () => (await import('./HandOverPage.tsx')).HandOverPage },
    { path: '/day/:grinderId', load: async () => (await import('./HistoryPage.tsx')).HistoryPage },
  ],
  does: [
    { id: 'history', label: 'How the grinders ran', to: '/day' },
    { id: 'mornings', label: 'How the mornings went', to: '/day/mornings' },
    { id: 'handover', label: 'Hand-over', to: '/day/handover' },
  ],
  reads: ['day'],
  shows: ['grinder', 'group', 'recipe', 'policies', 'cafe', 'memory'],
  // The hours of the house stand above the rest of its day.
  readAhead: (client) => {
    for (const read of keptSheets('cafe')) void client.query(read).catch(() => undefined);
  },
  keeps: (client) => [
    ...grindersRead(client).map((grinderId) => ({
      queryKey: ['day', 'history', grinderId, '7'],
      queryFn: () => call('GET /day/history', { query: { grinderId, days: 7 } }),
    })),
    morningsRead,
  ],
  slots: {
    // What is due first stands first: the day is not drawn by another rule until its own is there.
    homeDay: withPage(async () => {
      const [{ DayOnHome }] = await Promise.all([import('./DayOnHome.tsx'), controllerFetched()]);
      return DayOnHome;
    }),
    coffeeNotes: later(async () => (await import('./CoffeeNotes.tsx')).CoffeeNotes),
  },
};
