import { defineConfig } from 'vitest/config';

/** A loaded machine is no bug: what takes longer than this hangs. */
const PATIENCE_MS = 30_000;

export default defineConfig({
  test: {
    // By itself it leaves one core free, which of two is half of them.
    maxWorkers: '100%',
    projects: [
      {
        test: {
          name: 'core',
          // Pure functions share nothing: what one file has loaded serves the next.
          isolate: false,
          include: ['packages/core/src/**/*.test.ts'],
          environment: 'node',
          testTimeout: PATIENCE_MS,
        },
      },
      {
        test: {
          name: 'contract',
          include: ['packages/contract/src/**/*.test.ts', 'tools/**/*.test.ts'],
          environment: 'node',
          // Some start a database of their own, beside whatever else keeps the machine busy.
          testTimeout: 60_000,
        },
      },
      {
        define: { __TEMPERA_BUILD__: JSON.stringify('test') },
        test: {
          name: 'web',
          // Loading the pages' libraries takes longer than the tests: once for each worker. `testSetup` clears up between files.
          isolate: false,
          include: ['apps/web/src/**/*.test.{ts,tsx}'],
          environment: 'jsdom',
          testTimeout: PATIENCE_MS,
          setupFiles: 'apps/web/src/ui/testSetup.ts',
        },
      },
      {
        test: {
          name: 'server',
          isolate: false,
          include: ['apps/server/test/**/*.test.ts'],
          environment: 'node',
          globalSetup: 'apps/server/test/globalSetup.ts',
          testTimeout: PATIENCE_MS,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
