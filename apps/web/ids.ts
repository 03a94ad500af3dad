import type { Plugin } from 'vite';

/**
 * Mantine's `useId` draws with React's id and then sets a random one of its own, for servers that draw with an old React: every
 * field, dialog and menu of a page is drawn a second time before the first picture. React's id is enough where the page is drawn in
 * the browser alone.
 */
export function oneIdEach(): Plugin {
  return {
    name: 'one-id-each',
    load: {
      filter: { id: /@mantine[\\/]hooks[\\/]esm[\\/]use-id[\\/]use-id\.mjs$/ },
      handler: () => `
        import { useId as useReactId } from 'react';
        export function useId(given) {
          const own = useReactId();
          return typeof given === 'string' ? given : own;
        }`,
    },
  };
}
