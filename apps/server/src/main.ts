import { existsSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { readConfig } from './kernel/config.ts';
import { createLog } from './kernel/logging.ts';
import { startServer } from './app/server.ts';

/** Whatever still hangs by then is left: everything that was kept is in the database. */
const LONGEST_END_MS = 4_500;

/** Production entry: one process, configured by environment variables, stopped by SIGTERM or SIGINT. */
async function main(): Promise<void> {
  const built = fileURLToPath(new URL('../../web/dist/', import.meta.url));
  const config = readConfig(process.env, existsSync(path.join(built, 'index.html')) ? built : null);
  const log = createLog(config.logLevel);
  const starting = startServer(config, log);
  // From the first moment: asked to stop while it still starts, it stops when it has started, or when that takes too long.
  for (const signal of ['SIGTERM', 'SIGINT'] as const) {
    process.once(signal, () => {
      log.info(`${signal}: closing`);
      setTimeout(() => process.exit(1), LONGEST_END_MS).unref();
      starting.then((server) => server.close()).catch(() => undefined);
    });
  }
  const server = await starting;
  log.info(`Tempera listens on http${config.tls ? 's' : ''}://${config.host}:${server.port}`);
}

main().catch((error: unknown) => {
  process.stderr.write(`Tempera could not start. ${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
});
