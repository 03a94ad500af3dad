import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, request, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import express from 'express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { serveWeb } from '../src/kernel/web.ts';
import { startTestServer, TestClient, type TestServer } from './harness.ts';

let folder: string;
let server: Server;

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'tempera-web-'));
  mkdirSync(path.join(folder, 'assets'));
  writeFileSync(path.join(folder, 'index.html'), '<title>Tempera</title>');
  writeFileSync(path.join(folder, 'assets/app-123.js'), 'plain');
  writeFileSync(path.join(folder, 'assets/app-123.js.gz'), gzipSync('squeezed'));
  const app = express();
  app.use(serveWeb(folder));
  server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(() => {
  server.close();
  rmSync(folder, { recursive: true });
});

/** A plain request: fetch would unpack what it gets. */
function get(url: string, encoding = 'identity'): Promise<IncomingMessage> {
  const { port } = server.address() as AddressInfo;
  return new Promise((resolve, reject) => {
    request({ port, path: url, headers: { 'accept-encoding': encoding } }, (response) => {
      response.resume();
      resolve(response);
    })
      .on('error', reject)
      .end();
  });
}

describe('the built web app', () => {
  it('is compressed ahead and kept for ever by its name', async () => {
    const { headers } = await get('/assets/app-123.js', 'gzip');
    expect(headers['content-encoding']).toBe('gzip');
    expect(headers['cache-control']).toBe('public, max-age=31536000, immutable');
    expect((await get('/assets/app-123.js')).headers['content-encoding']).toBeUndefined();
  });

  it('answers every address of the app with the page, asked for anew each time', async () => {
    for (const address of ['/', '/journal', '/bench/a/b']) {
      const { statusCode, headers } = await get(address);
      expect(statusCode).toBe(200);
      expect(headers['content-type']).toContain('text/html');
      expect(headers['cache-control']).toBe('no-cache');
    }
  });

  it.each(['/assets/gone.js', '/api/gone', '/..%2f..%2fetc%2fpasswd', '/favicon.ico'])(
    'does not answer %s with the page',
    async (address) => {
      expect((await get(address)).statusCode).toBeGreaterThanOrEqual(400);
    },
  );
});

describe('a server whose database has gone', () => {
  let test: TestServer;
  beforeAll(async () => {
    test = await startTestServer();
  });
  afterAll(() => test.close());

  it('lives but is not ready, and says what that means instead of a 500', async () => {
    const client = await new TestClient(test).signIn('Ines');
    await test.server.db.destroy();
    expect((await client.get('/healthz')).status).toBe(200);
    const ready = await client.get('/readyz');
    expect(ready.status).toBe(503);
    expect(ready.problem).toMatchObject({
      code: 'notReady',
      detail: expect.stringContaining('nothing entered is lost'),
    });
    await test.server.db.initialize();
    expect((await client.get('/readyz')).status).toBe(200);
    expect((await client.get('/api/bar')).status).toBe(200);
  });

  it('ends open streams when it is asked to stop', async () => {
    const client = await new TestClient(test).signIn('Noor');
    const stream = await fetch(`${test.base}/api/live`, { headers: { cookie: client.cookie } });
    const ended = stream.text();
    const began = performance.now();
    await test.server.close();
    await ended;
    expect(performance.now() - began).toBeLessThan(2_500);
  });
});
