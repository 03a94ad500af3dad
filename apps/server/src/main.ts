import { existsSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { readConfig } from './platform/config.ts';
import { createLog } from './platform/logging.ts';
import { startServer } from './platform/server.ts';

/** Production entry: one process, configured by environment variables, stopped by SIGTERM or SIGINT. */
async function main(): Promise<void> {
  const built = fileURLToPath(new URL('../../web/dist/', import.meta.url));
  const config = readConfig(process.env, existsSync(path.join(built, 'index.html')) ? built : null);
  const log = createLog(config.logLevel);
  const server = await startServer(config, log);
  log.info(`Tempera listens on http://${config.host}:${server.port}`);
  for (const signal of ['SIGTERM', 'SIGINT'] as const) {
    process.once(signal, () => {
      log.info(`${signal}: closing`);
      void server.close();
    });
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`Tempera could not start. ${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
});
