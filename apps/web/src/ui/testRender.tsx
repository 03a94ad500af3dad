import { MantineProvider } from '@mantine/core';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { vi } from 'vitest';

class NoObserver {
  observe = (): void => undefined;
  unobserve = (): void => undefined;
  disconnect = (): void => undefined;
}

/** Renders a part as the app would, in a browser stand-in that has no layout. */
export function renderPart(part: ReactNode) {
  const noList = { matches: false, addEventListener: () => undefined, removeEventListener: () => undefined };
  vi.stubGlobal('matchMedia', () => noList);
  vi.stubGlobal('ResizeObserver', NoObserver);
  return render(
    <MantineProvider env="test">
      <MemoryRouter>{part}</MemoryRouter>
    </MantineProvider>,
  );
}
