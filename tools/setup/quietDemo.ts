import type { Bar } from '@tempera/contract/bar';
import type { Welcome } from '@tempera/contract/team';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import type { RunningServer } from '../../apps/server/src/app/server.ts';
import type { Config } from '../../apps/server/src/kernel/config.ts';

/** The demo café as tests and benches serve it: on loopback, silent, without limits on requests. */
export function quietDemo(change: Pick<Config, 'databaseUrl'> & Partial<Config>): Config {
  return {
    ownerUrl: null,
    publicUrl: null,
    host: '127.0.0.1',
    port: 0,
    logLevel: 'silent',
    demo: 'opening',
    speed: 1,
    seed: 1,
    setUpCode: 'garden gate',
    behindTls: false,
    tls: null,
    requestsPerMinute: 1_000_000,
    webRoot: null,
    ...change,
  };
}

/**
 * Has the demo café's server hear all its shots, so that whoever copies its database need not wait for that.
 * @throws Error when that takes longer than a minute
 */
export async function hearTheShots({ port, db }: Pick<RunningServer, 'port' | 'db'>): Promise<void> {
  const base = `http://127.0.0.1:${port}/api`;
  const { demo } = (await (await fetch(`${base}/welcome`)).json()) as Welcome;
  const [personId, pin] = Object.entries(demo?.pins ?? {})[0] ?? [];
  const signedIn = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ personId, pin }),
  });
  const headers = { cookie: signedIn.headers.getSetCookie()[0]?.split(';')[0] ?? '' };
  for (const began = Date.now(); Date.now() - began < MS_PER_MINUTE;) {
    // The answer is given before all is heard, where that takes long.
    const { memory } = (await (await fetch(`${base}/bar`, { headers })).json()) as Bar;
    const kept = await db.query<object[]>('SELECT 1 FROM bar_memory WHERE up_to = $1', [memory.upTo]);
    if (kept.length > 0) {
      await fetch(`${base}/session`, { method: 'DELETE', headers });
      return;
    }
  }
  throw new Error('The demo café did not hear its shots within a minute.');
}
