import { spawn } from 'node:child_process';
import path from 'node:path';
import { createServer as createVite } from 'vite';
import { dataFolder, freePort, startCluster } from './setup/cluster.ts';
import { root } from './setup/paths.ts';
import { refuseSecondRun } from './setup/runFile.ts';

/** `npm run dev`: the demo café with hot reload of the web app and a server that restarts at each change. */
export async function main(): Promise<number> {
  const folder = dataFolder();
  refuseSecondRun(folder);
  const cluster = await startCluster({ folder, durable: true });
  const apiPort = await freePort();
  const server = spawn(
    path.join(root, 'node_modules/.bin/tsx'),
    ['watch', '--clear-screen=false', 'apps/server/src/main.ts'],
    {
      cwd: root,
      stdio: 'inherit',
      env: {
        ...process.env,
        DATABASE_URL: cluster.url,
        DATABASE_OWNER_URL: cluster.ownerUrl,
        PORT: String(apiPort),
        TEMPERA_DEMO: '1',
        LOG_LEVEL: 'warn',
      },
    },
  );
  const vite = await createVite({
    root: path.join(root, 'apps/web'),
    server: { proxy: { '/api': `http://127.0.0.1:${apiPort}` } },
  });
  await vite.listen();
  vite.printUrls();
  await new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => resolve());
  });
  server.kill('SIGTERM');
  await vite.close();
  cluster.stop();
  return 0;
}
