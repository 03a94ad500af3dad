import { partsOf, type Route, type RouteKey } from '@tempera/contract/route';
import { routes } from '@tempera/contract/routes';
import { seededRandom, type Random } from '@tempera/core/numbers';
import type { Bar } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { v4 as uuidv4, v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { startTestServer, TestClient, type TestServer } from './harness.ts';

/**
 * Every route is asked with what no person would send. TEMPERA_FUZZ sets how many requests in all; a seed makes each the same
 * every time. Nothing may answer with a failure of the server's own, nor not at all.
 */
const REQUESTS = Number(process.env.TEMPERA_FUZZ ?? 1_200);
const SLOWEST_MS = 5_000;
const AT_ONCE = 8;

let test: TestServer;
let ines: TestClient;
let bar: Bar;
let session: Session;
beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
  bar = await ines.bar();
  session = (await ines.get<Session>('/api/session')).body;
});
afterAll(() => test.close());

const table = (Object.entries(routes) as [RouteKey, Route][]).filter(([key, { answer }]) => {
  // A stream never ends, and whoever signs out asks nothing more.
  return answer !== 'events' && !key.startsWith('DELETE');
});

const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)] as T;

const oddTexts = [
  '',
  ' ',
  '\u0000',
  'a\u0000b',
  '\ud800',
  'x\udfff',
  '𝕏',
  '../..',
  "'; DROP TABLE fact; --",
  '%00',
  '‮',
];
const oddNumbers = [0, -1, 1e308, -1e308, 5e-324, 1.5, 2 ** 53, -9_999, 1e21, Number.NaN, Number.POSITIVE_INFINITY];
const oddMoments = [
  '0000-01-01T00:00:00Z',
  '0000-12-31T23:59:59Z',
  '9999-12-31T23:59:59Z',
  '2026-01-01T00:00:00+23:59',
  '2026-02-30T10:00:00Z',
  '9999-01-01',
  '0000-01-01',
];

function ids(): string[] {
  const grinder = bar.grinders[0];
  const known = [
    grinder?.id,
    grinder?.coffeeId,
    grinder?.recipe.id,
    bar.machines[0]?.id,
    bar.machines[0]?.groups[0]?.id,
  ];
  return [
    ...known.filter((id) => id !== undefined),
    session.person.id,
    session.site.id,
    uuidv4(),
    uuidv7(),
    'not-an-id',
  ];
}

function deep(levels: number): unknown {
  let value: unknown = 1;
  for (let i = 0; i < levels; i += 1) value = i % 2 ? [value] : { value };
  return value;
}

function oddValue(random: Random): unknown {
  return pick<() => unknown>(random, [
    () => pick(random, oddTexts),
    () => pick(random, oddNumbers),
    () => pick(random, oddMoments),
    () => pick(random, ids()),
    () => null,
    () => true,
    () => [],
    () => ({}),
    () => 'y'.repeat(5_000),
    () => deep(60),
    () => Array.from({ length: 300 }, () => pick(random, oddNumbers)),
    () => JSON.parse('{"__proto__": {"polluted": 1}, "constructor": 1}') as unknown,
  ])();
}

/** Something that a schema would take, or nearly: a body that gets far before it is refused. */
function nearly(schema: z.ZodType, random: Random): unknown {
  const inner = schema as z.ZodType & { unwrap?: () => z.ZodType; element?: z.ZodType; options?: z.ZodType[] };
  if (schema instanceof z.ZodObject) {
    return Object.fromEntries(
      Object.entries(schema.shape as Record<string, z.ZodType>).map(([key, of]) => [key, nearly(of, random)]),
    );
  }
  if (schema instanceof z.ZodNullable) return random() < 0.3 ? null : nearly(schema.unwrap() as z.ZodType, random);
  if (inner.unwrap) return nearly(inner.unwrap(), random);
  if (schema instanceof z.ZodPipe) return nearly(schema.in as z.ZodType, random);
  if (schema instanceof z.ZodDiscriminatedUnion || schema instanceof z.ZodUnion)
    return nearly(pick(random, schema.options as z.ZodType[]), random);
  if (schema instanceof z.ZodLiteral) return [...schema.values][0];
  if (schema instanceof z.ZodEnum) return pick(random, schema.options);
  if (schema instanceof z.ZodArray)
    return Array.from({ length: Math.floor(3 * random()) }, () => nearly(schema.element as z.ZodType, random));
  if (schema instanceof z.ZodBoolean) return random() < 0.5;
  if (schema instanceof z.ZodNumber) return pick(random, [0, 1, 5, 18, 36, 93, 420]);
  if (schema instanceof z.ZodUUID || schema instanceof z.ZodGUID) return pick(random, ids());
  if (schema instanceof z.ZodISODateTime) return random() < 0.2 ? pick(random, oddMoments) : new Date().toISOString();
  if (schema instanceof z.ZodISODate) return random() < 0.2 ? pick(random, oddMoments) : '2026-11-01';
  return pick(random, ['a', '4951', 'Europe/Vienna', 'EUR', 'twelve', ...oddTexts]);
}

/** One value somewhere in it is put out of shape, a field is lost, or one too many is there. */
function spoiled(value: unknown, random: Random): unknown {
  if (typeof value !== 'object' || value === null || random() < 0.15) return oddValue(random);
  if (Array.isArray(value)) return (value as unknown[]).map((one, i) => (i === 0 ? spoiled(one, random) : one));
  const entries = Object.entries(value);
  if (entries.length === 0) return oddValue(random);
  const at = Math.floor(random() * entries.length);
  if (random() < 0.1) return Object.fromEntries(entries.filter((_, i) => i !== at));
  if (random() < 0.1)
    return { ...value, [pick(random, ['extra', '__proto__', 'constructor', 'toString'])]: oddValue(random) };
  return Object.fromEntries(entries.map(([key, inner], i) => [key, i === at ? spoiled(inner, random) : inner]));
}

function request(
  key: RouteKey,
  { body, query }: Route,
  random: Random,
): { method: string; path: string; body?: string } {
  const { method, path } = partsOf(key);
  // Whoever asks stays in the house.
  const named = ids().filter((id) => !key.includes('/team/people') || id !== session.person.id);
  const filled = path.replaceAll(/\{\w+\}/g, () => encodeURIComponent(safe(pick(random, [...named, ...oddTexts]))));
  const asked = query ? (spoiled(nearly(query, random), random) as Record<string, unknown> | null) : null;
  const search = new URLSearchParams();
  if (typeof asked === 'object' && asked !== null)
    for (const [name, value] of Object.entries(asked))
      search.append(name, safe(typeof value === 'string' ? value : JSON.stringify(value ?? null)));
  const address = `/api${filled}${search.size > 0 ? `?${search.toString()}` : ''}`;
  if (method === 'GET') return { method, path: address };
  const whole = body ? nearly(body, random) : {};
  const signed =
    key === 'POST /facts' && typeof whole === 'object'
      ? { ...whole, personId: session.person.id, siteId: session.site.id }
      : whole;
  const sent = random() < 0.25 ? signed : spoiled(signed, random);
  return { method, path: address, body: random() < 0.02 ? '{"broken' : JSON.stringify(sent) };
}

/** Half a pair cannot be put into an address at all. */
const safe = (text: string): string => text.replaceAll(/[\ud800-\udfff]/g, '?').slice(0, 500);

describe('what no person would send', () => {
  it(`is refused with a sentence, on every route (${REQUESTS} requests)`, { timeout: 600_000 }, async () => {
    const random = seededRandom(20_261_126);
    const failures: string[] = [];
    const asks = Array.from({ length: REQUESTS }, (_, i) => {
      const [key, route] = table[i % table.length] as [RouteKey, Route];
      return { key, ...request(key, route, random) };
    });
    const ask = async ({ key, method, path, body }: (typeof asks)[number]): Promise<void> => {
      const began = performance.now();
      const answer = await fetch(`${test.base}${path}`, {
        method,
        headers: { cookie: ines.cookie, 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body }),
        signal: AbortSignal.timeout(2 * SLOWEST_MS),
      }).catch((error: unknown) => ({ status: 599, text: async () => Promise.resolve(String(error)) }));
      const text = await answer.text();
      const tookMs = performance.now() - began;
      const refusedInWords = answer.status < 400 || /"detail":"[^"]+\./.test(text);
      if (answer.status >= 500 || tookMs > SLOWEST_MS || !refusedInWords)
        failures.push(
          `${answer.status} ${key} ${path.slice(0, 200)} ${body?.slice(0, 400) ?? ''} -> ${text.slice(0, 200)}`,
        );
    };
    for (let i = 0; i < asks.length; i += AT_ONCE) await Promise.all(asks.slice(i, i + AT_ONCE).map(ask));
    expect(failures.slice(0, 10)).toEqual([]);
    // Whoever asked is still signed in, and the bar still stands.
    expect((await ines.get<Bar>('/api/bar')).status).toBe(200);
  });
});
