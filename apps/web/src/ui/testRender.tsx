import { MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { vi } from 'vitest';

class NoObserver {
  observe = (): void => undefined;
  unobserve = (): void => undefined;
  disconnect = (): void => undefined;
}

/** Renders a part as the app would, in a browser stand-in that has no layout. @param at the address it is opened at */
export function renderPart(part: ReactNode, at = '/') {
  const noList = { matches: false, addEventListener: () => undefined, removeEventListener: () => undefined };
  vi.stubGlobal('matchMedia', () => noList);
  vi.stubGlobal('ResizeObserver', NoObserver);
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(part, {
    wrapper: ({ children }) => (
      <QueryClientProvider client={queries}>
        <MantineProvider env="test">
          <MemoryRouter initialEntries={[at]}>{children}</MemoryRouter>
        </MantineProvider>
      </QueryClientProvider>
    ),
  });
}
