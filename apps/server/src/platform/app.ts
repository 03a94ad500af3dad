import compression from 'compression';
import express, { type Express, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { CLOCK_HEADER } from '@tempera/contract/common';
import type { Welcome } from '@tempera/contract/team';
import { barRoutes } from '../bar/index.ts';
import { coffeeRoutes } from '../coffee/index.ts';
import { houseRoutes } from '../house/index.ts';
import { calibrationRoutes } from '../calibration/index.ts';
import { journalRoutes } from '../journal/index.ts';
import { openingRoutes } from '../opening/index.ts';
import { requireSession, sessionOf, teamRoutes } from '../team/index.ts';

import type { Config } from './config.ts';
import { healthRoutes } from './health.ts';
import type { Live } from './live.ts';
import { logRequests } from './logging.ts';
import { openApiDocument } from './openapi.ts';
import { noSuchRoute, problem, problemHandler, sendProblem } from './problems.ts';
import { serveWeb } from './web.ts';

const BODY_LIMIT = '256kb';

export interface AppParts {
  config: Config;
  db: DataSource;
  live: Live;
  log: Logger;
  demo: Welcome['demo'];
}

/** The whole HTTP application, without a port. */
export function createApp({ config, db, live, log, demo }: AppParts): Express {
  const app = express();
  if (config.behindTls) app.set('trust proxy', 1);
  app.disable('x-powered-by');
  app.use(logRequests(log));
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          // The component library sets colours and sizes by style attributes.
          'style-src': ["'self'", "'unsafe-inline'"],
          // The planner of the opening is a solver compiled to WebAssembly.
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'upgrade-insecure-requests': config.behindTls ? [] : null,
        },
      },
      strictTransportSecurity: config.behindTls,
    }),
  );
  app.use(healthRoutes(db));
  app.use('/api', compression(), apiRoutes({ config, db, live, log, demo }));
  if (config.webRoot) app.use(serveWeb(config.webRoot));
  app.use(noSuchRoute);
  app.use(problemHandler);
  return app;
}

function apiRoutes({ config, db, live, demo }: AppParts): Router {
  const api = Router();
  const document = openApiDocument();
  api.use(
    rateLimit({
      limit: config.requestsPerMinute,
      standardHeaders: true,
      legacyHeaders: false,
      handler: (_req, res) => sendProblem(res, problem('tooManyRequests')),
    }),
  );
  api.use((_req, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    // By this a device finds out how far its own clock is off.
    res.setHeader(CLOCK_HEADER, String(Date.now()));
    next();
  });
  api.use(express.json({ limit: BODY_LIMIT }));
  api.get('/openapi.json', (_req, res) => {
    res.json(document);
  });
  api.use(teamRoutes(db, { demo, behindTls: config.behindTls }));
  api.use(requireSession(db));
  api.use(barRoutes(db));
  api.use(houseRoutes(db));
  api.use(coffeeRoutes(db));
  api.use(calibrationRoutes(db));
  api.use(journalRoutes(db));
  api.use(openingRoutes(db));
  api.get('/live', (req, res) => {
    live.join(sessionOf(req).site.id, req, res);
  });
  api.use(noSuchRoute);
  return api;
}
