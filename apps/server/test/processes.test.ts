import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { Writable } from 'node:stream';
import type { Welcome } from '@tempera/contract/team';
import { beforeAll, describe, expect, it } from 'vitest';
import { createLog } from '../src/kernel/logging.ts';
import { startServer } from '../src/app/server.ts';
import { ensureBuilt } from '../../../tools/setup/builder.ts';
import { quietDemo } from '../../../tools/setup/quietDemo.ts';
import { served, startProcess } from '../../../tools/setup/serverProcess.ts';
import { freshDatabase, TestClient } from './harness.ts';

/** Server processes as a service manager starts and stops them. */

async function ended(child: ChildProcess): Promise<void> {
  if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
}

beforeAll(ensureBuilt);

describe('processes of one database', () => {
  it('start five at once on an empty one, and all serve', { timeout: 120_000 }, async () => {
    const url = await freshDatabase('five_at_once');
    const children = Array.from({ length: 5 }, () => startProcess(url));
    try {
      const ports = await Promise.all(children.map(served));
      const sites = await Promise.all(
        ports.map(async (port) => {
          const answer = await fetch(`http://127.0.0.1:${port}/api/welcome`);
          return ((await answer.json()) as Welcome).sites.length;
        }),
      );
      expect(sites).toEqual([1, 1, 1, 1, 1]);
    } finally {
      for (const child of children) child.kill('SIGTERM');
      await Promise.all(children.map(ended));
    }
  });

  it('end within five seconds of a SIGTERM, at any moment of their start', { timeout: 240_000 }, async () => {
    const url = await freshDatabase('stopped_early', 'demo');
    const first = startProcess(url);
    const began = performance.now();
    await served(first);
    const startMs = performance.now() - began;
    first.kill('SIGTERM');
    await ended(first);
    const MOMENTS = 10;
    for (let moment = 0; moment < MOMENTS; moment += 1) {
      const child = startProcess(url);
      // The last of them comes when the port has just been opened.
      await new Promise((resolve) => setTimeout(resolve, ((moment + 1) / MOMENTS) * startMs));
      child.kill('SIGTERM');
      const inTime = await Promise.race([
        ended(child).then(() => true),
        new Promise<boolean>((resolve) => setTimeout(() => resolve(false), 5_000)),
      ]);
      if (!inTime) child.kill('SIGKILL');
      expect(inTime, `moment ${moment} of the start`).toBe(true);
    }
  });
});

describe('the log', () => {
  it('carries no token, no cookie, no PIN and no name', async () => {
    let written = '';
    const sink = new Writable({
      write(part: Buffer, _encoding, done) {
        written += part.toString();
        done();
      },
    });
    const databaseUrl = await freshDatabase('logged', 'demo');
    const server = await startServer(quietDemo({ databaseUrl }), createLog('debug', sink));
    try {
      const client = new TestClient({ base: `http://127.0.0.1:${server.port}` });
      await client.signIn('Ines');
      const { body } = await client.get<Welcome>('/api/welcome');
      const pins = Object.values(body.demo?.pins ?? {});
      await client.send('POST', '/api/session', { personId: body.sites[0]?.people[0]?.id, pin: '9999' });
      await client.get('/api/search?q=Ines');
      await client.get('/api/bar');
      await client.send('POST', '/api/facts', '{"broken');
      // A failure of the database's own, with what was sent in its parameters.
      await server.db.query('ALTER TABLE session RENAME TO gone');
      await client.get('/api/bar');
      const token = client.cookie.split('=')[1] ?? '';
      expect(token.length).toBeGreaterThan(20);
      expect(written).toContain('"url":"/api/bar"');
      expect(written).toContain('"url":"/api/search"');
      // A clock, a process and a line of code may well read like somebody's PIN.
      const said = written.replaceAll(/"(time|pid|responseTime)":[\d.]+|:\d+:\d+\b/g, '');
      for (const secret of [token, 'cookie', ...pins, '9999', 'Ines']) expect(said).not.toContain(secret);
    } finally {
      await server.close();
    }
  });
});
