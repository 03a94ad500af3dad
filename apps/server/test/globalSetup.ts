import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { pino } from 'pino';
import type { TestProject } from 'vitest/node';
import { startCluster } from '../../../tools/setup/cluster.ts';
import { hearTheShots, quietDemo } from '../../../tools/setup/quietDemo.ts';
import { startServer } from '../src/app/server.ts';

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
    /** The same server for the role that owns nothing. */
    serverUrl: string;
    adminUrl: string;
    /** Name of a database with the demo café in it: loading the café takes longer than copying it. */
    demoDatabase: string;
  }
}

const DEMO_DATABASE = 'demo_to_copy';

/** One throw-away PostgreSQL for all API tests; each test file makes a database of its own in it. */
export default async function setup(project: TestProject): Promise<() => void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'tempera-test-'));
  const cluster = await startCluster({ folder, durable: false });
  await setStage(cluster.adminUrl, cluster.ownerUrl);
  project.provide('databaseUrl', cluster.ownerUrl);
  project.provide('serverUrl', cluster.url);
  project.provide('adminUrl', cluster.adminUrl);
  project.provide('demoDatabase', DEMO_DATABASE);
  return () => {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}

async function setStage(adminUrl: string, url: string): Promise<void> {
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  await admin.query(`CREATE DATABASE ${DEMO_DATABASE} OWNER tempera`);
  await admin.end();
  const databaseUrl = Object.assign(new URL(url), { pathname: `/${DEMO_DATABASE}` }).toString();
  const server = await startServer(quietDemo({ databaseUrl }), pino({ level: 'silent' }));
  await hearTheShots(server);
  await server.close();
}
