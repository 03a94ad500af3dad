import { randomUUID } from 'node:crypto';
import type { Bar } from '@tempera/contract/bar';
import type { NewFact } from '@tempera/contract/journal';
import type { Problem } from '@tempera/contract/problem';
import { partsOf, type Route, type RouteKey } from '@tempera/contract/route';
import { routes } from '@tempera/contract/routes';
import type { Session, Welcome } from '@tempera/contract/team';
import type { FactBodies, FactKind } from '@tempera/core/facts';
import pg from 'pg';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import { inject } from 'vitest';
import { quietDemo } from '../../../tools/setup/quietDemo.ts';
import { startServer, type RunningServer } from '../src/app/server.ts';

export interface TestServer {
  base: string;
  databaseUrl: string;
  adminUrl: string;
  server: RunningServer;
  /** Stops the server and starts another on the same database. */
  restart(): Promise<void>;
  close(): Promise<void>;
}

const withDatabase = (url: string, name: string): string =>
  Object.assign(new URL(url), { pathname: `/${name}` }).toString();

/** A database of its own: empty, or with the demo café in it. @returns its address for the server's role */
export async function freshDatabase(name: string, holds: 'nothing' | 'demo' = 'nothing'): Promise<string> {
  const admin = new pg.Client({ connectionString: inject('adminUrl') });
  await admin.connect();
  const template = holds === 'demo' ? `TEMPLATE ${inject('demoDatabase')}` : '';
  await admin.query(`CREATE DATABASE ${name} OWNER tempera ${template}`);
  await admin.end();
  return withDatabase(inject('databaseUrl'), name);
}

/** A server on a fresh database of its own, with the demo café unless told otherwise. */
export async function startTestServer({ demo = true, behindTls = false } = {}): Promise<TestServer> {
  const name = `t_${randomUUID().replaceAll('-', '')}`;
  const databaseUrl = await freshDatabase(name, demo ? 'demo' : 'nothing');
  // As set-up makes it: the server works under a role that owns nothing.
  const serverUrl = withDatabase(inject('serverUrl'), name);
  const start = (): Promise<RunningServer> =>
    startServer(
      quietDemo({ databaseUrl: serverUrl, ownerUrl: databaseUrl, behindTls, demo: demo ? 'opening' : null }),
      pino({ level: 'silent' }),
    );
  const test: TestServer = {
    base: '',
    databaseUrl,
    adminUrl: withDatabase(inject('adminUrl'), name),
    server: await start(),
    restart: async () => {
      await test.server.close();
      test.server = await start();
      test.base = `http://127.0.0.1:${test.server.port}`;
    },
    close: () => test.server.close(),
  };
  test.base = `http://127.0.0.1:${test.server.port}`;
  return test;
}

const answers = (Object.entries(routes) as [RouteKey, Route][]).flatMap(([key, { answer }]) => {
  if (typeof answer === 'string') return [];
  const { method, path } = partsOf(key);
  return [{ key, method, path: new RegExp(`^/api${path.replaceAll(/\{\w+\}/g, '[^/]+')}$`), answer }];
});

/** Whatever a test asks for, the answer has the form that the contract tells the browser of. */
function isAsTheTableSays(method: string, address: string, json: unknown): void {
  const asked = address.split('?')[0] ?? '';
  const route = answers.find((one) => one.method === method && one.path.test(asked));
  const issues = route?.answer.safeParse(json).error?.issues ?? [];
  if (route && issues.length > 0)
    throw new Error(`${route.key} answers other than the table says: ${JSON.stringify(issues.slice(0, 3))}`);
}

export interface Answer<T> {
  status: number;
  headers: Headers;
  body: T;
  problem: Problem;
}

/** Somebody's browser: keeps the session cookie, speaks JSON. */
export class TestClient {
  cookie = '';
  /** Who is signed in: what they send carries their name. */
  personId = '';
  readonly #test: Pick<TestServer, 'base'>;

  constructor(test: Pick<TestServer, 'base'>) {
    this.#test = test;
  }

  async send<T = unknown>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const response = await fetch(`${this.#test.base}${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined
        ? {}
        : { body: typeof body === 'string' ? body : JSON.stringify(this.#signed(path, body)) }),
    });
    for (const setCookie of response.headers.getSetCookie()) this.#keepCookie(setCookie.split(';')[0] ?? '');
    const text = await response.text();
    const json: unknown = /json/.test(response.headers.get('content-type') ?? '') ? JSON.parse(text) : text;
    if (response.ok) isAsTheTableSays(method, path, json);
    return { status: response.status, headers: response.headers, body: json as T, problem: json as Problem };
  }

  /** As a browser does: by name, a later one in place of an earlier. */
  #keepCookie(cookie: string): void {
    const [name] = cookie.split('=');
    const others = this.cookie.split('; ').filter((kept) => kept !== '' && !kept.startsWith(`${name ?? ''}=`));
    this.cookie = [...others, cookie].join('; ');
  }

  /** Facts are signed by whoever sends them, unless a test says otherwise. */
  #signed(path: string, body: unknown): unknown {
    if (path !== '/api/facts' || typeof body !== 'object' || body === null || Array.isArray(body)) return body;
    return { personId: this.personId, skewMs: null, ...body };
  }

  get<T>(path: string): Promise<Answer<T>> {
    return this.send<T>('GET', path);
  }

  /** Signs in by name with the demo's PIN. */
  async signIn(name = 'Ines'): Promise<this> {
    const { body } = await this.get<Welcome>('/api/welcome');
    const person = body.sites[0]?.people.find((candidate) => candidate.name === name);
    await this.send('POST', '/api/session', { personId: person?.id, pin: body.demo?.pins[person?.id ?? ''] });
    this.personId = person?.id ?? '';
    return this;
  }

  /** Signs in as somebody whose PIN the test knows. */
  async signInWith(personId: string, pin: string): Promise<Answer<Session>> {
    this.personId = personId;
    return this.send<Session>('POST', '/api/session', { personId, pin });
  }

  async bar(): Promise<Bar> {
    return (await this.get<Bar>('/api/bar')).body;
  }
}

/** A fact of the demo's house grinder, proper in every field unless changed; the client signs it. */
export function factOf<K extends FactKind>(
  bar: Bar,
  siteId: string,
  kind: K,
  body: FactBodies[K],
  change: object = {},
): NewFact {
  const grinder = bar.grinders.find(({ name }) => name === 'House');
  return {
    id: uuidv7(),
    siteId,
    kind,
    at: new Date().toISOString(),
    grinderId: grinder?.id ?? '',
    groupId: bar.machines[0]?.groups[0]?.id ?? null,
    body,
    ...change,
  } as NewFact;
}

export function shotBody(bar: Bar, change: Partial<FactBodies['shot']> = {}): FactBodies['shot'] {
  return {
    recipeVersionId: bar.grinders.find(({ name }) => name === 'House')?.recipe.id ?? '',
    setting: 30,
    doseG: 18,
    yieldG: 36,
    timeS: 27,
    firstDropS: 6,
    flaw: null,
    measuredBy: 'hand',
    trace: null,
    ...change,
  };
}
