import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { Client } from 'pg';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { demoClogged, demoPins, loadDemoCafe } from '../practice/index.ts';
import { createApp } from './app.ts';
import type { Config } from '../kernel/config.ts';
import { createDataSource } from './db.ts';
import { letServe } from './letServe.ts';
import { placesAfter, recordedByIds, standsOf } from '../journal/index.ts';
import { drawCode, endedAmong, hasCafe } from '../team/index.ts';
import { notify, startLive } from '../kernel/live.ts';

/** A server that listens. */
export interface RunningServer {
  port: number;
  db: DataSource;
  /** Ends streams, finishes open requests, closes the database. Safe to call twice. */
  close(): Promise<void>;
}

/** Open requests get this long at shutdown. */
const GRACE_MS = 3_000;
const KEEP_ALIVE_MS = 65_000;

/** Any number will do, as long as all processes use the same. */
const START_LOCK = 7_316_401;

/** Runs `work` while no other process of this database does: of several that start at once, one migrates. */
async function alone(databaseUrl: string, work: () => Promise<void>): Promise<void> {
  // On a connection of its own: the lock is the session's, and falls with it whatever happens.
  const client = new Client({ connectionString: databaseUrl });
  client.on('error', () => undefined);
  await client.connect();
  try {
    await client.query('SELECT pg_advisory_lock($1)', [START_LOCK]);
    await work();
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** What whoever started the server reads there, and nobody on the network can: null where a café is set up already. */
async function codeToSetUp(db: DataSource, chosen: string | null): Promise<string | null> {
  if (await hasCafe(db)) return null;
  return chosen ?? drawCode().replace(/(\d{4})(?=\d)/, '$1 ');
}

/** Migrates and loads the demo café as the owner of the tables, and lets the server's role in. */
async function prepare({ databaseUrl, ownerUrl, demo }: Config): Promise<void> {
  const owner = await createDataSource(ownerUrl ?? databaseUrl).initialize();
  try {
    await alone(databaseUrl, async () => {
      await owner.runMigrations({ transaction: 'each' });
      if (demo) await loadDemoCafe(owner, demo);
      if (ownerUrl !== null) await letServe(owner, databaseUrl);
    });
  } finally {
    await owner.destroy();
  }
}

/**
 * Migrates, loads the demo café where asked, and serves.
 * @throws Error when the port is taken (code EADDRINUSE) or the database cannot be reached.
 */
export async function startServer(config: Config, log: Logger): Promise<RunningServer> {
  await prepare(config);
  const db = await createDataSource(config.databaseUrl).initialize();
  const live = startLive({
    databaseUrl: config.databaseUrl,
    log,
    readFacts: (ids) => recordedByIds(db, ids),
    standsOf: (siteIds) => standsOf(db, siteIds),
    placesAfter: (asked, most) => placesAfter(db, asked, most),
    notify: (channel, payload) => notify(db, channel, payload),
    endedAmong: (keys) => endedAmong(db, keys),
  });
  await live.ready;
  const demo = config.demo ? { pins: demoPins, speed: config.speed, seed: config.seed, clogged: demoClogged } : null;
  const setUpCode = await codeToSetUp(db, config.setUpCode);
  if (setUpCode !== null) log.warn(`Nothing is set up here yet. The code to set up the first café is: ${setUpCode}`);
  const app = createApp({ config, db, live, log, demo, setUpCode });
  const server = config.tls
    ? createTlsServer({ cert: readFileSync(config.tls.certFile), key: readFileSync(config.tls.keyFile) }, app)
    : createServer(app);
  // Longer than proxies and browsers keep an idle connection: whoever reuses one does not find it closed just then.
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  let closing: Promise<void> | null = null;

  const close = async (): Promise<void> => {
    const ended = new Promise<void>((resolve) => server.close(() => resolve()));
    await live.close();
    server.closeIdleConnections();
    const grace = setTimeout(() => server.closeAllConnections(), GRACE_MS);
    await ended;
    clearTimeout(grace);
    await db.destroy();
  };

  try {
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(config.port, config.host, resolve);
    });
  } catch (error) {
    await live.close();
    await db.destroy();
    throw error;
  }
  return { port: (server.address() as AddressInfo).port, db, close: () => (closing ??= close()) };
}
