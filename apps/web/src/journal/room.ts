import { keepsHouse } from '../kernel/sheets.ts';
import { changesKey, firstPage, nothingSet } from './queries.ts';
import type { Room } from '../kernel/room.ts';

export const journalRoom: Room = {
  pages: [
    { path: '/journal', load: async () => (await import('./JournalPage.tsx')).JournalPage },
    { path: '/journal/entry/:id', load: async () => (await import('./EntryPage.tsx')).EntryPage },
    { path: '/journal/changes', load: async () => (await import('./ChangesPage.tsx')).ChangesPage },
  ],
  nav: { label: 'Journal', to: '/journal', key: 'j', does: 'to the journal' },
  does: [
    { id: 'journal', label: 'Journal', to: '/journal' },
    { id: 'changes', label: 'Changes and sign-ins', to: '/journal/changes', may: keepsHouse },
  ],
  hits: { person: { word: 'Person: what they entered', path: (id) => `/journal?person=${id}` } },
  reads: ['journal', changesKey[0]],
  keeps: () => [{ queryKey: ['journal', nothingSet], queryFn: firstPage }],
  onFact: (client) => void client.invalidateQueries({ queryKey: ['journal'] }),
};
