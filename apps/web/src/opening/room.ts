import { call } from '../kernel/api.ts';
import { withPage } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';

export const openingRoom: Room = {
  pages: [
    { path: '/opening', load: async () => (await import('./OpeningPage.tsx')).OpeningPage },
    { path: '/opening/plan', load: async () => (await import('./TimelinePage.tsx')).TimelinePage },
    { path: '/opening/sign-off', load: async () => (await import('./SignOffPage.tsx')).SignOffPage },
  ],
  nav: { label: 'Opening', to: '/opening', key: 'o', does: 'to the opening' },
  reads: ['opening'],
  shows: ['machine', 'group', 'grinder', 'recipe', 'policies', 'cafe'],
  keeps: () => [{ queryKey: ['opening', 'history'], queryFn: () => call('GET /opening/history') }],
  slots: { homeNext: withPage(async () => (await import('./NextOnHome.tsx')).NextOnHome) },
};
