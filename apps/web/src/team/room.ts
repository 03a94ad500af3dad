import type { Room } from '../kernel/room.ts';
import { call } from '../kernel/api.ts';
import { keepsHouse, keptSheets } from '../kernel/sheets.ts';

export const teamRoom: Room = {
  pages: [
    { path: '/team', load: async () => (await import('./TeamPage.tsx')).TeamPage },
    { path: '/team/:id', load: async () => (await import('./PersonPage.tsx')).PersonPage },
    { path: '/me', load: async () => (await import('./MePage.tsx')).MePage },
  ],
  does: [
    { id: 'team', label: 'Team', to: '/team', may: keepsHouse },
    { id: 'new-person', label: 'Take somebody in', to: '/team/new', may: keepsHouse },
    { id: 'me', label: 'Your PIN, your units, where you are signed in', to: '/me' },
  ],
  reads: ['team', 'welcome'],
  shows: ['person', 'cafe'],
  keeps: () => [{ queryKey: ['welcome'], queryFn: () => call('GET /welcome') }, ...keptSheets('person')],
};
