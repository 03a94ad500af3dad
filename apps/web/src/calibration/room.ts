import { later, withPage } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';
import { grindersRead } from '../bar/index.ts';
import { keptBench, takeIntoBench } from './queries.ts';

export const calibrationRoom: Room = {
  pages: [
    { path: '/bench/:grinderId', load: async () => (await import('./ChooseGroupPage.tsx')).ChooseGroupPage },
    { path: '/bench/:grinderId/:groupId', load: async () => (await import('./BenchPage.tsx')).BenchPage, soon: true },
  ],
  keys: [
    { keys: 'g', does: 'grind a dose', where: 'bench' },
    { keys: 'k', does: 'keep the weighed dose', where: 'bench' },
    { keys: 'Space', does: 'start and stop the shot', where: 'bench' },
    { keys: 'd', does: 'do what is advised', where: 'bench' },
    { keys: 'e', does: 'enter a shot that was pulled without the app', where: 'bench' },
    { keys: 'w', does: 'why this advice', where: 'bench' },
  ],
  reads: ['bench'],
  shows: ['memory'],
  keeps: (client) => grindersRead(client).map(keptBench),
  onFact: takeIntoBench,
  slots: {
    homeAsks: withPage(async () => (await import('./CollarDisputes.tsx')).CollarDisputes),
    grinderChecks: later(async () => (await import('./DoseCheck.tsx')).DoseCheck),
  },
};
