import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { setTimeout as pause } from 'node:timers/promises';
import { pathToFileURL } from 'node:url';
import type { Bar } from '@tempera/contract/bar';
import { MS_PER_SECOND } from '@tempera/core/numbers';
import { pino } from 'pino';
import { startCluster } from '../setup/cluster.ts';
import { serverDist } from '../setup/paths.ts';
import { quietDemo } from '../setup/quietDemo.ts';
import type { Figure } from './figure.ts';
import { signIn, timed } from './http.ts';
import { quantile } from './statistics.ts';

/** Facts of a bar that has been open for years; `TEMPERA_BENCH_FACTS` for another number. */
const FACTS = Number(process.env.TEMPERA_BENCH_FACTS ?? 150_000);
const READS = 100;
const NS_PER_MS = 1e6;
/** What this machine's timer and garbage collector take by themselves. */
const RESOLUTION_MS = 5;

interface Db {
  query(sql: string, values?: unknown[]): Promise<unknown>;
}

/** What the memory of a bar costs where its history is long: made again from nothing, and read with the bar. */
export async function measureMemory(): Promise<Figure[]> {
  const folder = mkdtempSync(path.join(tmpdir(), 'tempera-bench-'));
  const cluster = await startCluster({ folder, durable: false });
  const { startServer } = (await import(
    pathToFileURL(path.join(serverDist, 'server.js')).href
  )) as typeof import('../../apps/server/src/app/server.ts');
  const start = () => startServer(quietDemo({ databaseUrl: cluster.ownerUrl }), pino({ level: 'silent' }));
  let server = await start();
  try {
    await loadYears(server.db, FACTS);
    // A new process knows nothing of what was there before.
    await server.close();
    server = await start();
    const base = `http://127.0.0.1:${server.port}/api`;
    const { cookie } = await signIn(base);
    await server.db.query('DELETE FROM bar_memory');
    const read = async (what: string): Promise<unknown> =>
      (await fetch(`${base}${what}`, { headers: { cookie } })).json();

    const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
    delay.enable();
    const began = performance.now();
    const { memory } = (await read('/bar')) as Bar;
    while (!(await isMade(server.db, memory.upTo))) await pause(RESOLUTION_MS);
    const rebuiltS = (performance.now() - began) / MS_PER_SECOND;
    delay.disable();

    await read('/bar/learned');
    const [bars, learned] = [await timed(() => read('/bar'), READS), await timed(() => read('/bar/learned'), READS)];
    const facts = FACTS.toLocaleString('en-GB');
    return [
      { name: `memory made again from ${facts} facts with their bags`, value: rebuiltS, unit: 's', aim: 'under 15' },
      {
        name: 'the same: longest that the event loop was held',
        value: delay.max / NS_PER_MS - RESOLUTION_MS,
        unit: 'ms',
        aim: 'under 50',
      },
      { name: `bar read after ${facts} facts, p50`, value: quantile(bars, 0.5), unit: 'ms' },
      { name: `bar read after ${facts} facts, p99`, value: quantile(bars, 0.99), unit: 'ms' },
      {
        name: `what the bar taught, after ${facts} facts, p50`,
        value: quantile(learned, 0.5),
        unit: 'ms',
        aim: 'under 50',
      },
      { name: `what the bar taught, after ${facts} facts, p99`, value: quantile(learned, 0.99), unit: 'ms' },
    ];
  } finally {
    await server.close();
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function isMade(db: Db, upTo: string): Promise<boolean> {
  return ((await db.query('SELECT 1 FROM bar_memory WHERE up_to = $1', [upTo])) as unknown[]).length > 0;
}

/** Years of shots, moves, purges and bags before the demo's own six weeks, evenly over its grinders and groups. */
async function loadYears(db: Db, facts: number): Promise<void> {
  await db.query(
    `WITH g AS (SELECT id, site_id, row_number() OVER (ORDER BY id) - 1 AS i FROM grinder),
          h AS (SELECT id, row_number() OVER (ORDER BY id) - 1 AS i FROM group_head),
          p AS (SELECT id FROM person ORDER BY id LIMIT 1),
          r AS (SELECT id FROM recipe_version ORDER BY id LIMIT 1)
     INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body)
     SELECT gen_random_uuid(), g.site_id, k.kind, t.at, t.at, p.id, g.id, CASE k.kind WHEN 'shot' THEN h.id END,
            CASE k.kind
              WHEN 'shot' THEN jsonb_build_object('recipeVersionId', r.id, 'setting', 30, 'doseG', 18, 'yieldG', 36,
                'timeS', round((27 + 2 * sin(n) + random())::numeric, 1), 'firstDropS', 6, 'flaw', NULL,
                'measuredBy', 'scale', 'trace', NULL)
              WHEN 'purge' THEN '{"purgeG": 18}'
              WHEN 'collarMove' THEN '{"from": 30, "to": 30, "advisedTo": null}'
              ELSE '{"roastedOn": null}' END
       FROM generate_series(1, $1::int) n
       CROSS JOIN p CROSS JOIN r
       JOIN g ON g.i = n % (SELECT count(*) FROM g)
       JOIN h ON h.i = n % (SELECT count(*) FROM h)
       CROSS JOIN LATERAL (SELECT CASE WHEN n % 13 = 0 THEN 'newBag' WHEN n % 7 = 0 THEN 'purge'
                                       WHEN n % 11 = 0 THEN 'collarMove' ELSE 'shot' END AS kind) k
       CROSS JOIN LATERAL (SELECT now() - interval '43 days' - ($1 - n) * interval '12 minutes' AS at) t`,
    [facts],
  );
  await db.query('ANALYZE fact');
}
