import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import type { Bar } from '@tempera/contract/bar';
import type { Welcome } from '@tempera/contract/team';
import type { Figure } from './figure.ts';
import { startCluster } from '../setup/cluster.ts';
import { serverDist, webDist } from '../setup/paths.ts';
import { quietDemo } from '../setup/quietDemo.ts';
import { quantile } from './statistics.ts';

const WARM_UP = 50;
const POSTS = 1_000;
const READS = 500;

/** Times of posting a shot with its trace and of reading home, one after the other, on the demo data; durable database. */
export async function measureHttp(): Promise<Figure[]> {
  const folder = mkdtempSync(path.join(tmpdir(), 'tempera-bench-'));
  const cluster = await startCluster({ folder, durable: true });
  const { startServer } = (await import(
    pathToFileURL(path.join(serverDist, 'server.js')).href
  )) as typeof import('../../apps/server/src/platform/server.ts');
  const server = await startServer(
    quietDemo({ databaseUrl: cluster.url, webRoot: webDist }),
    pino({ level: 'silent' }),
  );
  try {
    const base = `http://127.0.0.1:${server.port}/api`;
    const { cookie, bar, siteId } = await signIn(base);
    const home = (): Promise<unknown> =>
      fetch(`${base}/bar`, { headers: { cookie } }).then((response) => response.json());
    const post = (): Promise<unknown> =>
      fetch(`${base}/facts`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify(shot(bar, siteId)),
      }).then((response) => response.json());
    const reads = await timed(home, READS);
    const posts = await timed(post, POSTS);
    return [
      { name: 'home read on the demo data, p50', value: quantile(reads, 0.5), unit: 'ms' },
      { name: 'home read on the demo data, p99', value: quantile(reads, 0.99), unit: 'ms' },
      { name: 'shot posted with a 30 s trace, p50', value: quantile(posts, 0.5), unit: 'ms' },
      { name: 'shot posted with a 30 s trace, p99', value: quantile(posts, 0.99), unit: 'ms' },
    ];
  } finally {
    await server.close();
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function signIn(base: string): Promise<{ cookie: string; bar: Bar; siteId: string }> {
  const welcome = (await (await fetch(`${base}/welcome`)).json()) as Welcome;
  const site = welcome.sites[0];
  const person = site?.people[0];
  const response = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ personId: person?.id, pin: welcome.demo?.pins[person?.id ?? ''] }),
  });
  const cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  const bar = (await (await fetch(`${base}/bar`, { headers: { cookie } })).json()) as Bar;
  return { cookie, bar, siteId: site?.id ?? '' };
}

function shot(bar: Bar, siteId: string): object {
  const grinder = bar.grinders[0];
  return {
    id: uuidv7(),
    siteId,
    kind: 'shot',
    at: new Date().toISOString(),
    grinderId: grinder?.id,
    groupId: bar.machines[0]?.groups[0]?.id,
    body: {
      recipeVersionId: grinder?.recipe.id,
      setting: 30,
      doseG: 18,
      yieldG: 36,
      timeS: 27,
      firstDropS: 6,
      flaw: null,
      measuredBy: 'scale',
      trace: { hz: 10, massG: Array.from({ length: 300 }, (_, i) => Math.max(0, (i - 60) / 6.6)) },
    },
  };
}

async function timed(action: () => Promise<unknown>, count: number): Promise<number[]> {
  for (let i = 0; i < WARM_UP; i += 1) await action();
  const tookMs: number[] = [];
  for (let i = 0; i < count; i += 1) {
    const began = performance.now();
    await action();
    tookMs.push(performance.now() - began);
  }
  return tookMs;
}
