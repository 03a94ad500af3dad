import compression from 'compression';
import express, { type Express, type Request, type RequestHandler, type Response, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { CLOCK_HEADER } from '@tempera/contract/clock';
import { roomRoutes } from '@tempera/contract/routes';
import { deviceOf, identifyBySession } from '../team/index.ts';
import { healthRoutes } from '../kernel/health.ts';
import { logRequests } from '../kernel/logging.ts';
import { mountRoutes } from '../kernel/mount.ts';
import type { RoomParts, StepEffects } from '../kernel/room.ts';
import { rooms } from './rooms.ts';
import { openApiDocument } from './openapi.ts';
import { noSuchRoute, problem, problemHandler, sendProblem } from '../kernel/problems.ts';
import { sameSiteOnly } from '../kernel/sameSite.ts';
import { serveWeb, styleNonceOf } from '../kernel/web.ts';

const BODY_LIMIT = '256kb';
/** Sign-ins and set-ups: a person types slower, a guesser does not. */
const SLOW_ASKS_PER_MINUTE = 60;

/** What the application is made of. */
export interface AppParts extends Omit<RoomParts, 'effects'> {
  log: Logger;
}

/** The whole HTTP application, without a port. */
export function createApp({ log, ...parts }: AppParts): Express {
  const { config, db } = parts;
  const app = express();
  if (config.behindTls) app.set('trust proxy', 1);
  app.disable('x-powered-by');
  // Nothing of the API is kept by browsers, so nothing is asked whether it has changed; files bring marks of their own.
  app.disable('etag');
  app.use(logRequests(log));
  app.use(healthRoutes(db));
  // A stream of news is small words to many: packing each for each costs more than it saves, and a quarter megabyte a stream.
  const packs: RequestHandler = compression({
    filter: (req, res) => res.getHeader('Content-Type') !== 'text/event-stream' && compression.filter(req, res),
  });
  const strictTransportSecurity = config.behindTls;
  // What the API answers is no page, and nothing in it may become one.
  const nothing = { 'default-src': ["'none'"], 'frame-ancestors': ["'none'"] };
  app.use(
    '/api',
    helmet({ contentSecurityPolicy: { useDefaults: false, directives: nothing }, strictTransportSecurity }),
    packs,
    apiRoutes(parts),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          // Fonts ship with the app; nothing is fetched from elsewhere.
          'font-src': ["'self'"],
          'style-src': ["'self'", (_req, res) => `'nonce-${styleNonceOf(res as Response)}'`],
          // The planner of the opening is a solver compiled to WebAssembly.
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'upgrade-insecure-requests': config.behindTls ? [] : null,
        },
      },
      strictTransportSecurity,
    }),
  );
  if (config.webRoot) app.use(serveWeb(config.webRoot));
  app.use(noSuchRoute);
  app.use(problemHandler);
  return app;
}

/** So many requests a minute from one address. */
const limitedTo = (
  perMinute: number,
  skip: (req: Request) => Promise<boolean> = () => Promise.resolve(false),
): RequestHandler =>
  rateLimit({
    limit: perMinute,
    skip,
    standardHeaders: true,
    legacyHeaders: false,
    handler: (_req, res) => sendProblem(res, problem('tooManyRequests')),
  });

/** Everything under /api, as the contract's table of routes and the rooms say. */
export function apiRoutes(parts: Omit<RoomParts, 'effects'>): Router {
  const api = Router();
  const document = openApiDocument();
  api.use(limitedTo(parts.config.requestsPerMinute));
  api.use((_req, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    // By this a device finds out how far its own clock is off.
    res.setHeader(CLOCK_HEADER, String(Date.now()));
    next();
  });
  api.use(sameSiteOnly(parts.config.publicUrl));
  api.use(express.json({ limit: BODY_LIMIT }));
  api.get('/openapi.json', (_req, res) => {
    res.json(document);
  });
  const ways = {
    identify: identifyBySession(parts.db),
    // At a tablet of the house tries are counted by tablet and person: guesses from its address do not shut it out.
    slowDown: limitedTo(SLOW_ASKS_PER_MINUTE, async (req) => (await deviceOf(parts.db, req)) !== null),
  };
  const effects = Object.assign({}, ...rooms.map((room) => room.effects)) as StepEffects;
  for (const room of rooms) mountRoutes(api, roomRoutes[room.name], room.handlers({ ...parts, effects }), ways);
  api.use(noSuchRoute);
  return api;
}
