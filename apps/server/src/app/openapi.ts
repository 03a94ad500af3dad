import { problemSchema } from '@tempera/contract/problem';
import { partsOf, type Route, type RouteKey } from '@tempera/contract/route';
import { roomRoutes } from '@tempera/contract/routes';
import { z } from 'zod';
import { createDocument, type ZodOpenApiOperationObject } from 'zod-openapi';

const whoWord: Record<Route['who'], string> = {
  anyone: 'Open to anyone.',
  signedIn: 'For whoever is signed in.',
  headOrOffice: 'For a head barista or the office.',
  head: 'For a head barista.',
};

const refused = {
  description: 'Refused, with a sentence that says what to do (RFC 9457).',
  content: { 'application/problem+json': { schema: problemSchema } },
};

const contentOf = (answer: Exclude<Route['answer'], 'nothing'>) =>
  answer === 'csv'
    ? { 'text/csv': { schema: z.string() } }
    : answer === 'events'
      ? { 'text/event-stream': { schema: z.string() } }
      : { 'application/json': { schema: answer } };

function operationOf(path: string, route: Route, tag: string): ZodOpenApiOperationObject {
  const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => [name, z.uuid()] as const);
  return {
    tags: [tag],
    summary: route.says,
    description: whoWord[route.who],
    ...(route.who === 'anyone' ? { security: [] } : {}),
    requestParams: {
      ...(names.length > 0 ? { path: z.object(Object.fromEntries(names)) } : {}),
      ...(route.query ? { query: route.query as z.ZodObject } : {}),
    },
    ...(route.body ? { requestBody: { content: { 'application/json': { schema: route.body } } } } : {}),
    responses: {
      [String(route.answer === 'nothing' ? 204 : (route.status ?? 200))]: {
        description: route.says,
        ...(route.answer === 'nothing' ? {} : { content: contentOf(route.answer) }),
      },
      default: refused,
    },
  };
}

/** The API as an OpenAPI 3.1 document, generated from the contract's table of routes. */
export function openApiDocument(): object {
  const paths: Record<string, Record<string, ZodOpenApiOperationObject>> = {};
  for (const [tag, table] of Object.entries(roomRoutes)) {
    for (const [key, route] of Object.entries(table) as [RouteKey, Route][]) {
      const { method, path } = partsOf(key);
      paths[path] = { ...paths[path], [method.toLowerCase()]: operationOf(path, route, tag) };
    }
  }
  return createDocument({
    openapi: '3.1.0',
    info: { title: 'Tempera', version: '1', description: 'The calibration desk of an espresso bar.' },
    servers: [{ url: '/api' }],
    tags: Object.keys(roomRoutes).map((name) => ({ name })),
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'tempera_session' } },
    },
    security: [{ session: [] }],
    paths: paths,
  });
}
