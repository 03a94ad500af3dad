import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { TestProject } from 'vitest/node';
import { startCluster } from '../../../tools/setup/cluster.ts';

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
    adminUrl: string;
  }
}

/** One throw-away PostgreSQL for all API tests; each test file makes a database of its own in it. */
export default async function setup(project: TestProject): Promise<() => void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'tempera-test-'));
  const cluster = await startCluster({ folder, durable: false });
  project.provide('databaseUrl', cluster.url);
  project.provide('adminUrl', cluster.adminUrl);
  return () => {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
