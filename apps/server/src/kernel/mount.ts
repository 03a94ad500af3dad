import { pipeline } from 'node:stream';
import { entityId } from '@tempera/contract/common';
import { partsOf, type Route, type RouteKey, type Who } from '@tempera/contract/route';
import type { Role, Session } from '@tempera/contract/team';
import type { Request, RequestHandler, Response, Router } from 'express';
import { z } from 'zod';
import { parsed, problem } from './problems.ts';
import { writable } from './writable.ts';
import { isProven, type Identify } from './session.ts';

/** Which roles a route lets through, and what the others are told; null: every role. */
const admitted: Record<Exclude<Who, 'anyone'>, { roles: readonly Role[]; told: 'headOnly' | 'headOrOffice' } | null> = {
  signedIn: null,
  headOrOffice: { roles: ['head', 'office'], told: 'headOrOffice' },
  head: { roles: ['head'], told: 'headOnly' },
};

/** @throws ProblemError signInFirst, headOnly, headOrOffice, pinAgain */
async function whoAsks({ who, surely }: Route, req: Request, identify: Identify): Promise<Session | null> {
  if (who === 'anyone') return null;
  const session = await identify(req);
  if (!session) throw problem('signInFirst');
  const rule = admitted[who];
  if (rule && !rule.roles.includes(session.person.role)) throw problem(rule.told);
  if (surely && !isProven(session, Date.now())) throw problem('pinAgain');
  return session;
}

const namesIn = (path: string): string[] => [...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => name);

/** What a handler returns for a route of any kind. */
type AnyHandler = (asked: {
  params: Record<string, string>;
  query: unknown;
  body: unknown;
  session: Session | null;
  req: Request;
  res: Response;
}) => unknown;

function answer(route: Route, path: string, given: unknown, res: Response): void {
  switch (route.answer) {
    case 'events':
      return;
    case 'nothing':
      res.status(204).end();
      return;
    case 'csv':
      res.attachment(path.split('/').at(-1) ?? 'rows.csv').type('text/csv');
      pipeline(given as NodeJS.ReadableStream, res, () => undefined);
      return;
    default:
      res.json(given);
  }
}

/** Does something now. @returns what gives its result, or throws what it threw, when asked */
function settled<T>(work: () => T): () => T {
  try {
    const done = work();
    return () => done;
  } catch (error) {
    return () => {
      throw error;
    };
  }
}

/**
 * Mounts routes of the contract's table: who may ask is asked first, then path, query and body are parsed, and what the
 * handler gives is sent as the table says.
 */
export function mountRoutes(
  router: Router,
  table: Record<RouteKey, Route>,
  handlers: Record<string, unknown>,
  { identify, slowDown }: { identify: Identify; slowDown: RequestHandler },
): void {
  for (const [key, route] of Object.entries(table) as [RouteKey, Route][]) {
    const { method, path } = partsOf(key);
    const params = z.object(Object.fromEntries(namesIn(path).map((name) => [name, entityId])));
    const handler = handlers[key] as AnyHandler;
    const verb = method.toLowerCase() as 'get' | 'post' | 'put' | 'delete';
    router[verb](
      path.replaceAll(/\{(\w+)\}/g, ':$1'),
      ...(route.slowly ? [slowDown] : []),
      async (req: Request, res: Response) => {
        const asking = whoAsks(route, req, identify);
        // Read while the database looks up who asks; whoever may not ask is told that first, whatever they sent.
        const hear = settled(() => ({
          params: parsed(params, req.params),
          query: route.query ? parsed(route.query, writable(req.query)) : undefined,
          body: route.body ? parsed(route.body, writable(req.body)) : undefined,
        }));
        const session = await asking;
        const heard = hear();
        res.status(route.status ?? 200);
        const given = await handler({ ...heard, session, req, res });
        answer(route, path, given, res);
      },
    );
  }
}
