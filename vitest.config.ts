import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['packages/core/src/**/*.test.ts'], environment: 'node' } },
      {
        test: {
          name: 'contract',
          include: ['packages/contract/src/**/*.test.ts', 'tools/**/*.test.ts'],
          environment: 'node',
          // Some start a database of their own, beside whatever else keeps the machine busy.
          testTimeout: 60_000,
        },
      },
      { test: { name: 'web', include: ['apps/web/src/**/*.test.{ts,tsx}'], environment: 'jsdom' } },
      {
        test: {
          name: 'server',
          include: ['apps/server/test/**/*.test.ts'],
          environment: 'node',
          globalSetup: 'apps/server/test/globalSetup.ts',
          testTimeout: 20_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
