import { partsOf, type Route, type RouteKey } from '@tempera/contract/route';
import { roomRoutes, routes } from '@tempera/contract/routes';
import type { Router } from 'express';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { apiRoutes } from '../src/app/app.ts';
import { openApiDocument } from '../src/app/openapi.ts';
import type { RoomParts } from '../src/kernel/room.ts';
import { startTestServer, TestClient, type TestServer } from './harness.ts';

const table = Object.entries(routes) as [RouteKey, Route][];

/** What Express really listens to, as keys of the table. */
function mounted(router: Router): string[] {
  return router.stack.flatMap(({ route }) => {
    if (!route) return [];
    const methods = (route as unknown as { methods: Record<string, boolean> }).methods;
    return Object.keys(methods).map((method) => `${method.toUpperCase()} ${route.path.replaceAll(/:(\w+)/g, '{$1}')}`);
  });
}

describe('the table of routes', () => {
  it('is what is mounted, no route more and none less', () => {
    const parts = { config: { requestsPerMinute: 1, behindTls: false }, demo: null } as unknown as RoomParts;
    const api = mounted(apiRoutes(parts)).filter((key) => key !== 'GET /openapi.json');
    expect(api.toSorted()).toEqual(table.map(([key]) => key).toSorted());
  });

  it('is what the OpenAPI document describes, by room', () => {
    const { openapi, paths } = openApiDocument() as {
      openapi: string;
      paths: Record<string, Record<string, { tags: string[]; summary: string }>>;
    };
    expect(openapi).toBe('3.1.0');
    const described = Object.entries(paths).flatMap(([path, operations]) =>
      Object.entries(operations).map(([method, { tags }]) => `${tags.join()} ${method.toUpperCase()} ${path}`),
    );
    const told = Object.entries(roomRoutes).flatMap(([room, own]) => Object.keys(own).map((key) => `${room} ${key}`));
    expect(described.toSorted()).toEqual(told.toSorted());
  });
});

describe('who may call a route', () => {
  let test: TestServer;
  beforeAll(async () => {
    test = await startTestServer();
  });
  afterAll(() => test.close());

  const ask = (client: TestClient, key: RouteKey) => {
    const { method, path } = partsOf(key);
    return client.send(
      method,
      `/api${path.replaceAll(/\{\w+\}/g, () => randomUUID())}`,
      method === 'GET' ? undefined : {},
    );
  };

  it('is asked before anything else: without a session only what is open to anyone answers', async () => {
    for (const [key, { who }] of table) {
      const { status } = await ask(new TestClient(test), key);
      if (who === 'anyone') expect(status, key).not.toBe(401);
      else expect(status, key).toBe(401);
    }
  });

  it.each(['Tobin', 'Pell'])('is the role that the table says: %s is no head barista', async (name) => {
    const client = await new TestClient(test).signIn(name);
    const kept = table.filter(([, { who }]) => who === 'head' || who === 'headOrOffice');
    expect(kept.length).toBeGreaterThan(10);
    for (const [key, { who }] of kept) {
      const { status, problem } = await ask(client, key);
      expect([status, problem.code], key).toEqual([403, who === 'head' ? 'headOnly' : 'headOrOffice']);
    }
  });
});
