import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { Client } from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { SESSION_COOKIE } from '../../apps/server/src/team/auth.ts';
import { tokenHash } from '../../apps/server/src/team/tokens.ts';
import { startCluster } from '../setup/cluster.ts';
import { served, startProcess } from '../setup/serverProcess.ts';
import type { Figure } from './figure.ts';
import { signIn } from './http.ts';
import { quantile } from './statistics.ts';

const STREAMS = 500;
/** As many tabs as one session may hold open. */
const STREAMS_A_SESSION = 12;
const FACTS_A_SECOND = 50;
const SECONDS = Number(process.env.TEMPERA_BENCH_SECONDS ?? 60);
/** After the last fact, news are waited for so long. */
const SETTLE_MS = 3_000;

/** One fact in a stream: its place in the order of arrival, and when it came, ms. */
type Heard = [seq: number, atMs: number];

/** Streams of two server processes while facts come in at both: how late each fact reaches each stream, and whether any is lost. */
export async function measureLive(): Promise<Figure[]> {
  const folder = mkdtempSync(path.join(tmpdir(), 'tempera-bench-'));
  const cluster = await startCluster({ folder, durable: true });
  const env = { DATABASE_OWNER_URL: cluster.ownerUrl, TEMPERA_REQUESTS_PER_MINUTE: '10000000' };
  const servers = [startProcess(cluster.url, env), startProcess(cluster.url, env)];
  try {
    const ports = await Promise.all(servers.map(served));
    const bases = ports.map((port) => `http://127.0.0.1:${port}/api`);
    const { cookie, bar, siteId, personId } = await signIn(bases[0] ?? '');
    const cookies = await sessions(cluster.url, siteId, personId);
    const heard: Heard[][] = [];
    await Promise.all(
      Array.from({ length: STREAMS }, (_, i) => {
        const own: Heard[] = [];
        heard.push(own);
        return listen(ports[i % 2] ?? 0, cookies[Math.floor(i / STREAMS_A_SESSION)] ?? '', own);
      }),
    );
    const sent = new Map<number, number>();
    const post = async (i: number): Promise<void> => {
      const atMs = performance.now();
      const fact = {
        ...{ id: uuidv7(), siteId, personId, kind: 'purge', at: new Date().toISOString(), skewMs: null },
        ...{ grinderId: bar.grinders[0]?.id, groupId: null, body: { purgeG: 8 } },
      };
      const answer = await fetch(`${bases[i % 2] ?? ''}/facts`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify(fact),
      });
      sent.set(((await answer.json()) as { seq: number }).seq, atMs);
    };
    const began = performance.now();
    const posts: Promise<void>[] = [];
    for (let i = 0; i < FACTS_A_SECOND * SECONDS; i += 1) {
      await pause(Math.max(0, began + (i * 1_000) / FACTS_A_SECOND - performance.now()));
      posts.push(post(i));
    }
    await Promise.all(posts);
    await pause(SETTLE_MS);
    const lateMs = heard.flatMap((own) =>
      own.flatMap(([seq, atMs]) => {
        const sentMs = sent.get(seq);
        return sentMs === undefined ? [] : [atMs - sentMs];
      }),
    );
    const lost = STREAMS * sent.size - lateMs.length;
    return [
      {
        name: `${STREAMS} streams, ${FACTS_A_SECOND} facts a second: from the post to the stream, p50`,
        value: quantile(lateMs, 0.5),
        unit: 'ms',
      },
      { name: 'the same, p99', value: quantile(lateMs, 0.99), unit: 'ms', aim: 'under 300' },
      { name: 'facts that did not reach a stream', value: lost, unit: '', aim: 'none' },
    ];
  } finally {
    for (const server of servers) server.kill('SIGTERM');
    await Promise.all(servers.filter(({ exitCode }) => exitCode === null).map((server) => once(server, 'exit')));
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Sessions of one person, as many as the streams need. @returns their cookies */
async function sessions(databaseUrl: string, siteId: string, personId: string): Promise<string[]> {
  const tokens = Array.from({ length: Math.ceil(STREAMS / STREAMS_A_SESSION) }, () => randomUUID());
  const db = new Client({ connectionString: databaseUrl });
  await db.connect();
  for (const token of tokens) {
    await db.query(
      `INSERT INTO session (token_hash, site_id, person_id, expires_at) VALUES ($1, $2, $3, now() + interval '1 hour')`,
      [tokenHash(token), siteId, personId],
    );
  }
  await db.end();
  return tokens.map((token) => `${SESSION_COOKIE}=${token}`);
}

const EVENT = /id: (\d+)\nevent: fact/g;

/** Opens a stream and notes what it hears. Resolves once it is open. */
function listen(port: number, cookie: string, heard: Heard[]): Promise<void> {
  return new Promise((resolve, reject) => {
    const request = http.get(
      { port, host: '127.0.0.1', path: '/api/live', headers: { cookie }, agent: false },
      (answer) => {
        answer.setEncoding('utf8');
        let rest = '';
        answer.on('data', (part: string) => {
          const atMs = performance.now();
          const text = rest + part;
          for (const [, seq] of text.matchAll(EVENT)) heard.push([Number(seq), atMs]);
          // An event may come in two parts: its head is looked for once, where its last line has come.
          const end = text.lastIndexOf('\n\n');
          rest = end === -1 ? '' : text.slice(end + 2).includes('event: fact') ? '' : text.slice(end + 2);
          resolve();
        });
        answer.on('error', () => undefined);
      },
    );
    request.on('error', reject);
  });
}
