import { spawn, type ChildProcess } from 'node:child_process';
import { createServer as createHttpServer } from 'node:http';
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { deviceOf } from './bridge.ts';
import { poster } from './bridge/post.ts';
import { readingOf, readingsFrom } from './bridge/readings.ts';
import { readOn, sourceOf } from './bridge/sources.ts';

const ends: (() => void)[] = [];
afterEach(() => {
  for (const end of ends.splice(0)) end();
});

const listening = async (server: Server): Promise<number> => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  ends.push(() => server.close());
  return (server.address() as AddressInfo).port;
};

const counter = { name: 'counter scale', unit: 'g' } as const;
const NOON_MS = Date.parse('2031-05-02T12:00:00Z');

describe('what a bridge makes of a line', () => {
  it.each([
    ['ST +  18.20 g', { value: 18.2, unit: 'g', stable: true }],
    ['0.642 oz', { value: 0.642, unit: 'oz' }],
    ['18.2', { value: 18.2, unit: 'g' }],
    ['{"value": 61, "unit": "%"}', { value: 61, unit: '%' }],
    ['{"device": "window", "value": 21.5, "unit": "°C"}', { device: 'window', value: 21.5, unit: '°C' }],
  ])('%j', (line, told) => {
    expect(readingOf(line, counter, NOON_MS)).toEqual({
      device: 'counter scale',
      at: '2031-05-02T12:00:00.000Z',
      ...told,
    });
  });

  it.each([
    'ready',
    '{"value": "much", "unit": "g"}',
    '{',
    '{"value": 3, "unit": "stone"}',
    '{"value":1e9,"unit":"g"}',
  ])('nothing of %j', (line) => {
    expect(readingOf(line, counter, NOON_MS)).toBeNull();
  });

  it('and of a device as it is typed', () => {
    expect(deviceOf('tub scale=tcp:10.0.0.7:4001,kg')).toMatchObject({
      device: { name: 'tub scale', unit: 'kg' },
      source: { where: 'tcp:10.0.0.7:4001' },
    });
    expect(() => deviceOf('tub scale')).toThrow('is no device');
    expect(() => deviceOf('tub scale=usb:1')).toThrow('is no address');
  });
});

/** Everything that a source said until it said `count` values. */
async function valuesFrom(where: string, count: number): Promise<number[]> {
  const values: number[] = [];
  await new Promise<void>((resolve) => {
    const listen = () => {
      const take = readingsFrom(counter, Date.now);
      return (piece: string): void => {
        values.push(...take(piece).map(({ value }) => value));
        if (values.length >= count) resolve();
      };
    };
    ends.push(readOn(sourceOf(where), listen, () => undefined));
  });
  return values;
}

describe('a bridge', () => {
  it('reads a TCP line in half lines and bursts, and again after it was cut', async () => {
    let calls = 0;
    const speaker = createServer((socket: Socket) => {
      calls += 1;
      socket.on('error', () => undefined);
      if (calls > 1) {
        socket.write('18.4 g\r\n');
        return;
      }
      socket.write('18.');
      setTimeout(() => socket.write('1 g\r\n18.2 g\r\n18.3 g\r\n18.'), 20);
      setTimeout(() => socket.destroy(), 60);
    });
    const port = await listening(speaker);
    expect(await valuesFrom(`tcp:127.0.0.1:${port}`, 4)).toEqual([18.1, 18.2, 18.3, 18.4]);
  });

  it('reads a serial line by way of a terminal', async () => {
    // A terminal of its own, at whose other end stands the scale.
    const scale: ChildProcess = spawn('script', ['-qfec', 'tty; sleep 60', '/dev/null'], {
      stdio: ['pipe', 'pipe', 'ignore'],
    });
    ends.push(() => scale.kill());
    const tty = await new Promise<string>((resolve) => {
      scale.stdout?.once('data', (text: Buffer) => resolve(text.toString().trim()));
    });
    const values = valuesFrom(`serial:${tty}@9600`, 3);
    const speaking = setInterval(() => scale.stdin?.write('ST +  18.20 g\r\n'), 100);
    ends.push(() => clearInterval(speaking));
    expect((await values).slice(0, 3)).toEqual([18.2, 18.2, 18.2]);
  });

  it('sends what it reads with its key, drops what has perished, and says when the server is gone', async () => {
    const asked: { cookie: string | undefined; body: unknown }[] = [];
    let status = 503;
    const server = createHttpServer((req, res) => {
      let body = '';
      req.on('data', (piece: Buffer) => (body += piece.toString()));
      req.on('end', () => {
        asked.push({ cookie: req.headers.cookie, body: JSON.parse(body) });
        res.writeHead(status).end();
      });
    });
    const port = await listening(server);
    const said: string[] = [];
    const post = poster(`http://127.0.0.1:${port}`, 'secret', (line) => said.push(line));
    ends.push(post.end);
    const reading = { device: 'counter scale', value: 18.2, unit: 'g' as const };
    post.take([reading, reading]);
    await expect.poll(() => asked.length).toBe(1);
    expect(asked[0]).toEqual({ cookie: 'tempera_device=secret', body: { readings: [reading, reading] } });
    await expect.poll(() => said.at(-1)).toMatch(/in trouble/);
    status = 204;
    post.take([{ ...reading, value: 18.3 }]);
    await expect
      .poll(() => asked.at(-1)?.body, { timeout: 5_000 })
      .toEqual({ readings: [{ ...reading, value: 18.3 }] });
    await expect.poll(() => said.at(-1)).toBe('The server hears it.');
  });
});
