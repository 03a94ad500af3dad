import './shell/mantineStyles.ts';
import '@fontsource-variable/source-sans-3/wght.css';
import '@fontsource-variable/alegreya/wght.css';
import './shell/theme.css';
import { MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { App } from './shell/App.tsx';
import { ApiProblem } from './shell/api.ts';
import { OutboxContext } from './shell/facts.tsx';
import { takeIn } from './shell/live.ts';
import { indexedDbStorage, Outbox } from './shell/outbox.ts';
import { cssVariables, theme } from './shell/theme.ts';

const MAX_RETRIES = 2;
const client = new QueryClient({
  defaultOptions: {
    queries: {
      networkMode: 'always',
      retry: (failures, error) => !(error instanceof ApiProblem) && failures < MAX_RETRIES,
    },
    mutations: { networkMode: 'always' },
  },
});

const outbox = new Outbox(indexedDbStorage());
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
