import './shell/mantineStyles.ts';
import '@fontsource-variable/source-sans-3/wght.css';
import '@fontsource-variable/alegreya/wght.css';
import './shell/theme.css';
import { MantineProvider } from '@mantine/core';
import type { RecordedEntry } from '@tempera/contract/journal';
import { QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './shell/App.tsx';
import { api, ApiProblem } from './shell/api.ts';
import { skewMs } from './shell/clock.ts';
import { OutboxContext } from './shell/facts.tsx';
import { takeIn } from './shell/live.ts';
import { indexedDbStorage, Outbox } from './shell/outbox.ts';
import { cssVariables, theme } from './shell/theme.ts';
import { sessionKey } from './team/index.ts';

const MAX_RETRIES = 2;
const signedOut = (error: unknown): boolean => error instanceof ApiProblem && error.problem.code === 'signInFirst';

const client: QueryClient = new QueryClient({
  // A session that has ended, seen by any request, leads back to the names.
  queryCache: new QueryCache({ onError: (error) => signedOut(error) && client.setQueryData(sessionKey, null) }),
  defaultOptions: {
    queries: {
      networkMode: 'always',
      retry: (failures, error) => !(error instanceof ApiProblem) && failures < MAX_RETRIES,
    },
    mutations: { networkMode: 'always' },
  },
});

const outbox = new Outbox(indexedDbStorage(), async (fact) => {
  try {
    // A clock that nobody had measured when it was written is measured by now.
    return await api<RecordedEntry>('POST', '/facts', { ...fact, skewMs: fact.skewMs ?? skewMs() });
  } catch (error) {
    if (signedOut(error)) client.setQueryData(sessionKey, null);
    // Another tab signed somebody else in: this one finds out who stands here now, and the entry waits for its author.
    if (error instanceof ApiProblem && error.problem.code === 'notYours')
      void client.invalidateQueries({ queryKey: sessionKey });
    throw error;
  }
});
outbox.onKept = (fact) => takeIn(client, fact);
void outbox.load();

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <MantineProvider theme={theme} cssVariablesResolver={cssVariables} defaultColorScheme="auto">
        <QueryClientProvider client={client}>
          <OutboxContext value={outbox}>
            <BrowserRouter>
              <App />
            </BrowserRouter>
          </OutboxContext>
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>,
  );
}
