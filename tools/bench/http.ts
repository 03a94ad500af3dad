import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import type { Bar } from '@tempera/contract/bar';
import type { NewFact } from '@tempera/contract/journal';
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
  )) as typeof import('../../apps/server/src/app/server.ts');
  const server = await startServer(
    quietDemo({ databaseUrl: cluster.url, ownerUrl: cluster.ownerUrl, webRoot: webDist }),
    pino({ level: 'silent' }),
  );
  try {
    const base = `http://127.0.0.1:${server.port}/api`;
    const { cookie, bar, siteId, personId } = await signIn(base);
    const home = (): Promise<unknown> =>
      fetch(`${base}/bar`, { headers: { cookie } }).then((response) => response.json());
    const post = (): Promise<unknown> =>
      fetch(`${base}/facts`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify(aShot(bar, siteId, personId)),
      }).then((response) => response.json());
    const reads = await timed(home, READS);
    const posts = await timed(post, POSTS);
    const settledMs = await comeBack(post);
    await fillLists(server.db, siteId);
    const list = (path: string) => (): Promise<unknown> =>
      fetch(`${base}${path}`, { headers: { cookie } }).then((response) => response.json());
    const recipes = await timed(list('/house/recipes?search=shelf&sort=doseG&page=7'), READS);
    const bags = await timed(list('/coffee/bags?search=lot&sort=openedAt&page=90'), READS);
    const use = await timed(list('/coffee/use'), READS);
    return [
      { name: 'home read on the demo data, p50', value: quantile(reads, 0.5), unit: 'ms' },
      { name: 'home read on the demo data, p99', value: quantile(reads, 0.99), unit: 'ms' },
      { name: 'shot posted with a 30 s trace, p50', value: quantile(posts, 0.5), unit: 'ms' },
      { name: 'shot posted with a 30 s trace, p99', value: quantile(posts, 0.99), unit: 'ms' },
      {
        name: '20 tablets with 200 facts each, back at once, settled in',
        value: settledMs / 1_000,
        unit: 's',
        aim: 'under 30',
      },
      { name: 'a page of 500 recipes, p99', value: quantile(recipes, 0.99), unit: 'ms' },
      { name: 'a page of 5,000 bags, p99', value: quantile(bags, 0.99), unit: 'ms' },
      { name: 'four weeks of coffee used, p99', value: quantile(use, 0.99), unit: 'ms' },
    ];
  } finally {
    await server.close();
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Tablets that were alone for an hour, all back at once: each sends its own in order. @returns ms until the last is kept */
async function comeBack(post: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  const tablet = async (): Promise<void> => {
    for (let i = 0; i < FACTS_OF_AN_HOUR; i += 1) await post();
  };
  await Promise.all(Array.from({ length: TABLETS }, tablet));
  return performance.now() - began;
}
const TABLETS = 20;
const FACTS_OF_AN_HOUR = 200;

/** A house book that has grown for years. */
async function fillLists(
  db: { query(sql: string, values: unknown[]): Promise<unknown> },
  siteId: string,
): Promise<void> {
  await db.query(
    `INSERT INTO recipe_version (id, site_id, recipe_id, name, version, dose_g, dose_tolerance_g, yield_g,
       yield_tolerance_g, time_min_s, time_max_s, first_drop_min_s, first_drop_max_s)
     SELECT gen_random_uuid(), $1, gen_random_uuid(), 'Shelf ' || n, 1, 16 + n % 7, 0.3, 36, 1.5, 25, 30, 4, 8
       FROM generate_series(1, 500) n`,
    [siteId],
  );
  await db.query(
    `INSERT INTO bag (id, site_id, coffee_id, roasted_on, weight_g, freezes, label)
     SELECT gen_random_uuid(), $1, (SELECT id FROM coffee WHERE site_id = $1 LIMIT 1), date '2020-01-01' + n % 900, 1000,
            '[]', 'lot ' || n FROM generate_series(1, 5000) n`,
    [siteId],
  );
}

/** Somebody who is signed in, and the bar that they see. */
export interface SignedIn {
  cookie: string;
  bar: Bar;
  siteId: string;
  personId: string;
}

export async function signIn(base: string): Promise<SignedIn> {
  const welcome = (await (await fetch(`${base}/welcome`)).json()) as Welcome;
  const pins = welcome.demo?.pins ?? {};
  const site = welcome.sites.find(({ people }) => people.some(({ id }) => id in pins));
  const person = site?.people.find(({ id }) => id in pins);
  const response = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ personId: person?.id, pin: pins[person?.id ?? ''] }),
  });
  const cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  const bar = (await (await fetch(`${base}/bar`, { headers: { cookie } })).json()) as Bar;
  return { cookie, bar, siteId: site?.id ?? '', personId: person?.id ?? '' };
}

/** A shot with its trace, as a bench sends it. */
export function aShot(bar: Bar, siteId: string, personId: string): NewFact {
  const grinder = bar.grinders[0];
  return {
    id: uuidv7(),
    siteId,
    kind: 'shot',
    at: new Date().toISOString(),
    skewMs: null,
    personId,
    grinderId: grinder?.id ?? '',
    groupId: bar.machines[0]?.groups[0]?.id ?? null,
    body: {
      recipeVersionId: grinder?.recipe.id ?? '',
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

export async function timed(action: () => Promise<unknown>, count: number, warmUp = WARM_UP): Promise<number[]> {
  for (let i = 0; i < warmUp; i += 1) await action();
  const tookMs: number[] = [];
  for (let i = 0; i < count; i += 1) {
    const began = performance.now();
    await action();
    tookMs.push(performance.now() - began);
  }
  return tookMs;
}
