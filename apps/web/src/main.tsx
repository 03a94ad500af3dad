import './kernel/mantineStyles.ts';
import '@fontsource-variable/source-sans-3/wght.css';
import '@fontsource-variable/alegreya/wght.css';
import './kernel/theme.css';
import { MantineProvider } from '@mantine/core';
import type { NewEntry, RecordedEntry } from '@tempera/contract/journal';
import { QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, startTransition } from 'react';
import { setNonce } from 'get-nonce';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './app/App.tsx';
import { ApiProblem, call } from './kernel/api.ts';
import { fetchPageAt } from './app/pages.ts';
import { rooms } from './app/rooms.ts';
import { skewMs } from './kernel/clock.ts';
import { OutboxContext } from './kernel/facts.tsx';
import { takeIn } from './kernel/live.ts';
import { isLocked } from './kernel/lock.ts';
import { keepApp, KEPT_MS, restoreReads } from './kernel/offline.ts';
import { sessionKey, sessionQuery, stoodHere } from './kernel/session.ts';
import { Outbox } from './kernel/outbox.ts';
import { indexedDbStorage } from './kernel/outboxStorage.ts';
import { askTrained } from './kernel/yes.ts';
import { cssVariables, theme } from './kernel/theme.ts';

/** Styles that are written into the page carry the word that the server gave it; in development it gives none. */
const styleNonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? '';
if (styleNonce !== '') setNonce(styleNonce);

const MAX_RETRIES = 2;
/** The session has ended without a word from here; behind a lock that is known. */
const signedOut = (error: unknown): boolean =>
  error instanceof ApiProblem && error.problem.code === 'signInFirst' && !isLocked();

const client: QueryClient = new QueryClient({
  // A session that has ended, seen by any request, leads back to the names.
  queryCache: new QueryCache({ onError: (error) => signedOut(error) && client.setQueryData(sessionKey, null) }),
  defaultOptions: {
    queries: {
      networkMode: 'always',
      gcTime: KEPT_MS,
      retry: (failures, error) => !(error instanceof ApiProblem) && failures < MAX_RETRIES,
    },
    mutations: { networkMode: 'always' },
  },
});

// A clock that nobody had measured when an entry was written is measured by now.
const measured = (fact: NewEntry): NewEntry => ({ ...fact, skewMs: fact.skewMs ?? skewMs() });
// The answer goes without a trace: its thousands of letters are here already.
const asKept = (fact: NewEntry, kept: RecordedEntry): RecordedEntry => ({ ...kept, body: fact.body }) as RecordedEntry;
const send = async (fact: NewEntry): Promise<RecordedEntry> => {
  try {
    return asKept(fact, await call('POST /facts', { body: measured(fact) }));
  } catch (error) {
    if (signedOut(error)) client.setQueryData(sessionKey, null);
    // Another tab signed somebody else in: this one finds out who stands here now, and the entry waits for its author.
    if (error instanceof ApiProblem && error.problem.code === 'notYours')
      void client.invalidateQueries({ queryKey: sessionKey });
    throw error;
  }
};
const tell = async (fact: NewEntry): Promise<RecordedEntry> =>
  asKept(fact, await call('POST /facts/by-name', { body: measured(fact) }));
const outbox = new Outbox(indexedDbStorage(), send, tell);
outbox.onKept = (facts) => takeIn(client, facts, rooms);
outbox.onRefused = (fact, code) => {
  if (code === 'notSignedOff') askTrained(fact);
};
const kept = restoreReads(client);
// A page is a dozen pieces to ask for: a tablet does that after what it does here, and not in one go with it.
setTimeout(() => fetchPageAt(window.location.pathname));
void outbox.load();
// Who stands here, and the bar as it stands, are on their way before the first page is drawn.
void client.query(sessionQuery).catch(() => undefined);
if (stoodHere()) for (const { readAhead } of rooms) readAhead?.(client);

// The first view comes first; what keeps the app here is fetched after it.
window.addEventListener('load', () => void keepApp());

const root = document.getElementById('root');
if (root) {
  const app = (
    <StrictMode>
      <MantineProvider
        theme={theme}
        cssVariablesResolver={cssVariables}
        defaultColorScheme="auto"
        getStyleNonce={() => styleNonce}
      >
        <QueryClientProvider client={client}>
          <OutboxContext value={outbox}>
            <BrowserRouter>
              <App />
            </BrowserRouter>
          </OutboxContext>
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>
  );
  // What was kept stands with the first drawing, which goes in pieces: a finger is heard between them.
  void kept.then(() => startTransition(() => createRoot(root).render(app)));
}
