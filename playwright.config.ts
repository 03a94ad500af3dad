import { defineConfig } from '@playwright/test';
import { ensureChromium } from './tools/setup/debian.ts';

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/cluster.ts',
  outputDir: 'test-results',
  timeout: 480_000,
  // A loaded machine is no bug.
  expect: { timeout: 30_000 },
  // Side by side they keep two cores busy to nine tenths: a third would only make each of them later than its shots are long.
  workers: 2,
  fullyParallel: true,
  retries: 0,
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    contextOptions: { reducedMotion: 'reduce' },
    screenshot: 'only-on-failure',
    // What a worker keeps would come between a test and the server that it asks; its own tests allow it.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: ensureChromium(),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
