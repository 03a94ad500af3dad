import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { parseArgs } from 'node:util';
import { demoMoments, type Config, type DemoMoment } from '../apps/server/src/kernel/config.ts';
import type { RunningServer } from '../apps/server/src/app/server.ts';
import { ensureBuilt } from './setup/builder.ts';
import { dataFolder, removeCluster, startCluster, type Cluster } from './setup/cluster.ts';
import { serverDist, webDist } from './setup/paths.ts';
import { say, SetUpError } from './setup/problems.ts';
import { forgetRun, noteRun, refuseSecondRun } from './setup/runFile.ts';

const FIRST_PORT = 4680;
const PORTS_TO_TRY = 20;

type ServerModule = typeof import('../apps/server/src/app/server.ts');
type LogModule = typeof import('../apps/server/src/kernel/logging.ts');
type DemoModule = typeof import('../apps/server/src/practice/index.ts');

/** What may be asked for on the command line. @throws SetUpError naming what it does not know */
function readArgs(args: readonly string[]): { fresh: boolean; at: DemoMoment } {
  try {
    const { values } = parseArgs({
      args: [...args],
      options: { fresh: { type: 'boolean', default: false }, at: { type: 'string', default: 'opening' } },
    });
    const at = demoMoments.find((moment) => moment === values.at);
    if (!at) throw new Error(`--at takes ${demoMoments.join(', ')}`);
    return { fresh: values.fresh, at };
  } catch (error) {
    const says = error instanceof Error ? error.message.split('\n')[0] : String(error);
    throw new SetUpError(`${says}. Known are --fresh and --at ${demoMoments.join('|')}.`);
  }
}

/**
 * `npm run demo [-- --fresh] [--at service]`: sets everything up, serves the demo café until Ctrl-C, stops cleanly. Each
 * moment of the day has a data folder of its own.
 */
export async function main(args: string[]): Promise<number> {
  const { fresh, at } = readArgs(args);
  const stopped = untilStopped();
  const external = process.env.DATABASE_URL;
  if (external && fresh) {
    throw new SetUpError(
      'DATABASE_URL points at a server of yours, and --fresh will not empty that. Leave one of the two out.',
    );
  }
  const folder = external ? null : dataFolder(at === 'opening' ? '' : `-${at}`);
  if (folder) refuseSecondRun(folder);
  if (folder && fresh) removeCluster(folder);

  await ensureBuilt();
  const cluster: Cluster | null = folder ? await startCluster({ folder, durable: true }) : null;
  try {
    const server = await serve(
      external
        ? { databaseUrl: external, ownerUrl: process.env.DATABASE_OWNER_URL ?? null }
        : { databaseUrl: cluster?.url ?? '', ownerUrl: cluster?.ownerUrl ?? null },
      at,
    );
    const address = `http://localhost:${server.port}`;
    if (folder) noteRun(folder, address);
    await announce(address, folder);
    await stopped;
    say('\nStopping Tempera');
    await server.close();
  } finally {
    if (folder) forgetRun(folder);
    cluster?.stop();
  }
  return 0;
}

/** Resolves at the first Ctrl-C, hang-up or polite kill; a second one ends the process at once. */
function untilStopped(): Promise<void> {
  return new Promise((resolve) => {
    let asked = false;
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) {
      process.on(signal, () => {
        if (asked && signal === 'SIGTERM') process.exit(1);
        asked = true;
        resolve();
      });
    }
  });
}

async function serve(urls: Pick<Config, 'databaseUrl' | 'ownerUrl'>, demo: DemoMoment): Promise<RunningServer> {
  const { startServer } = (await import(pathToFileURL(path.join(serverDist, 'server.js')).href)) as ServerModule;
  const { createLog } = (await import(pathToFileURL(path.join(serverDist, 'logging.js')).href)) as LogModule;
  const log = createLog(process.env.LOG_LEVEL ?? 'warn');
  const asked = process.env.PORT === undefined ? null : Number(process.env.PORT);
  if (asked !== null && !(Number.isInteger(asked) && asked >= 0 && asked < 65_536)) {
    throw new SetUpError('PORT must be a number from 0 to 65535.');
  }
  const config: Omit<Config, 'port'> = {
    ...urls,
    host: process.env.HOST ?? '127.0.0.1',
    publicUrl: process.env.TEMPERA_PUBLIC_URL ?? null,
    logLevel: 'warn',
    demo,
    speed: Number(process.env.TEMPERA_SPEED ?? 1),
    seed: process.env.TEMPERA_SEED === undefined ? null : Number(process.env.TEMPERA_SEED),
    setUpCode: null,
    behindTls: false,
    tls: null,
    requestsPerMinute: 1_200,
    webRoot: webDist,
  };
  const ports = asked === null ? Array.from({ length: PORTS_TO_TRY }, (_, i) => FIRST_PORT + i) : [asked];
  for (const port of ports) {
    try {
      return await startServer({ ...config, port }, log);
    } catch (error) {
      const { code } = error as { code?: string };
      if (code === 'ECONNREFUSED' || code === 'ENOTFOUND' || code === '28P01') {
        throw new SetUpError(
          'The database in DATABASE_URL does not answer. Check the address, the password and that it runs.',
        );
      }
      if (code !== 'EADDRINUSE') throw error;
      if (asked === null) say(`Port ${port} is in use by another program, trying the next`);
    }
  }
  throw new SetUpError(
    `Port ${ports.join(', ')} is in use by another program. Choose another one: PORT=5000 npm run demo`,
  );
}

async function announce(address: string, folder: string | null): Promise<void> {
  const { demoSignIns } = (await import(pathToFileURL(path.join(serverDist, 'index.js')).href)) as DemoModule;
  process.stdout.write(
    [
      '',
      `Tempera serves the demo café at  ${address}`,
      `Sign in with a name and its PIN: ${demoSignIns.map(({ name, pin }) => `${name} ${pin}`).join(', ')}`,
      ...(folder ? [`Its data is kept in ${folder}; start over with --fresh`] : []),
      'Ctrl-C stops it.',
      '',
    ].join('\n'),
  );
}
