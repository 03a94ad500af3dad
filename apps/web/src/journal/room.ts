import type { Session } from '@tempera/contract/team';
import type { QueryClient } from '@tanstack/react-query';
import { keepsHouse } from '../kernel/sheets.ts';
import { sessionKey } from '../kernel/session.ts';
import { changesKey, firstChanges, firstPage, nothingSet } from './queries.ts';
import type { Room } from '../kernel/room.ts';

/** Whether whoever stands here may read what was changed of the house. */
function isKeeper(client: QueryClient): boolean {
  const session = client.getQueryData<Session | null>(sessionKey);
  return session ? keepsHouse(session) : false;
}

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
  reads: ['journal'],
  keeps: (client) => [
    { queryKey: ['journal', nothingSet], queryFn: firstPage },
    ...(isKeeper(client) ? [{ queryKey: changesKey, queryFn: firstChanges }] : []),
  ],
  onFact: (client) => void client.invalidateQueries({ queryKey: ['journal'] }),
};
