import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { MS_PER_SECOND } from '@tempera/core/numbers';
import { pino } from 'pino';
import { startCluster } from '../../setup/cluster.ts';
import { serverDist } from '../../setup/paths.ts';
import { quietDemo } from '../../setup/quietDemo.ts';
import type { Figure } from '../figure.ts';
import { signIn, timed, type SignedIn } from '../http.ts';
import { quantile } from '../statistics.ts';
import { exportFigures } from './exports.ts';
import { loadScale, SHOTS } from './load.ts';
import { writeFigures } from './writes.ts';

const READS = 120;
const AIM = 'p99 under 50';

type Bench = SignedIn & { base: string };

/** What a bar reads every day, by address. */
function readsOf({ bar }: Bench, gone: { retiredId: string; leftId: string } | null): [string, string][] {
  const grinder = bar.grinders[0]?.id ?? '';
  const group = bar.machines[0]?.groups[0]?.id ?? '';
  const person = bar.facts.find(({ kind }) => kind === 'shot')?.personId ?? '';
  return [
    ['home', '/bar'],
    ['what the shots taught', '/bar/learned'],
    ['upkeep', '/bar/upkeep'],
    ['bench', `/benches/${grinder}`],
    ['opening', '/opening/history'],
    ['day, a week', `/day/history?grinderId=${grinder}&days=7`],
    ['day, a quarter', `/day/history?grinderId=${grinder}&days=92`],
    ['day, two years', `/day/summaries?grinderId=${grinder}`],
    ['stock', '/coffee/stock'],
    ['bags', '/coffee/bags'],
    ['coffee used', '/coffee/use'],
    ['journal', '/journal?limit=50'],
    ['journal, deep', '/journal?limit=50&beforeSeq=5000'],
    ['journal, locks', '/journal?limit=50&kind=lock'],
    ['journal, a grinder', `/journal?limit=50&grinderId=${gone?.retiredId ?? grinder}`],
    ['journal, a group', `/journal?limit=50&groupId=${group}`],
    ['journal, a person', `/journal?limit=50&personId=${gone?.leftId ?? person}`],
    ['names to sign in with', '/welcome'],
  ];
}

/** Times of a bar's reads and writes on years of facts and beside a thousand cafés, with the demo's in the same run. */
export async function measureScale(): Promise<Figure[]> {
  const folder = mkdtempSync(path.join(tmpdir(), 'tempera-bench-'));
  const cluster = await startCluster({ folder, durable: true });
  const { startServer } = (await import(
    pathToFileURL(path.join(serverDist, 'server.js')).href
  )) as typeof import('../../../apps/server/src/app/server.ts');
  const start = () =>
    startServer(quietDemo({ databaseUrl: cluster.url, ownerUrl: cluster.ownerUrl }), pino({ level: 'silent' }));
  let server = await start();
  const bench = async (): Promise<Bench> => {
    const base = `http://127.0.0.1:${server.port}/api`;
    return { base, ...(await signIn(base)) };
  };
  const table = `ms, on the demo and on ${SHOTS.toLocaleString('en-GB')} shots`;
  try {
    const small = await bench();
    const demo = await readTimes(small, null);
    await server.close();
    const began = performance.now();
    const gone = await loadScale(cluster);
    const loadedS = (performance.now() - began) / MS_PER_SECOND;
    server = await start();
    const large = await bench();
    const old = await readTimes(large, gone);
    const cells = [...old].flatMap(([row, times]): Figure[] => {
      const before = demo.get(row) ?? [];
      const cell = (column: string, value: number): Figure => ({
        name: `${row}, ${column}`,
        value,
        unit: 'ms',
        cell: { table, row, column },
      });
      return [
        cell('demo p50', quantile(before, 0.5)),
        cell('p50', quantile(times, 0.5)),
        // What a busy machine does to either is in both.
        cell('demo p99', quantile(before, 0.99)),
        cell('p99', quantile(times, 0.99)),
      ];
    });
    const size = await sizeOf(large, '/bar');
    return [
      ...cells,
      { name: 'years loaded in', value: loadedS, unit: 's', aim: 'under 600' },
      { name: 'home, compressed', value: size / 1_000, unit: 'kB', aim: 'under 60' },
      ...(await exportFigures(large)),
      ...(await writeFigures({ ...large, databaseUrl: cluster.url })),
      { name: 'reads above', value: READS, unit: `each (aim: ${AIM})` },
    ];
  } finally {
    await server.close();
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function readTimes(
  bench: Bench,
  gone: { retiredId: string; leftId: string } | null,
): Promise<Map<string, number[]>> {
  const { base, cookie } = bench;
  const found = new Map<string, number[]>();
  for (const [name, address] of readsOf(bench, gone)) {
    const read = async (): Promise<void> => {
      const answer = await fetch(`${base}${address}`, { headers: { cookie } });
      if (!answer.ok) throw new Error(`${address}: ${answer.status}`);
      await answer.arrayBuffer();
    };
    found.set(name, await timed(read, READS, FEW_TO_WARM));
  }
  return found;
}
const FEW_TO_WARM = 10;

/** Bytes of an answer as they come over the wire. */
async function sizeOf({ base, cookie }: Bench, address: string): Promise<number> {
  const { get } = await import('node:http');
  return new Promise((resolve, reject) => {
    get(`${base}${address}`, { headers: { cookie, 'accept-encoding': 'gzip' } }, (answer) => {
      let bytes = 0;
      answer.on('data', (piece: Buffer) => (bytes += piece.length));
      answer.on('end', () => resolve(bytes));
    }).on('error', reject);
  });
}
