import { MS_PER_HOUR } from '@tempera/core/numbers';
import { newCafeSchema, signInSchema, unitsSchema, type Session, type Welcome } from '@tempera/contract/team';
import { Router, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { DataSource } from 'typeorm';
import { changeUnits, setUpCafe } from './cafe.ts';
import { cookieOptions, requireSession, SESSION_COOKIE, sessionOf, tokenOf } from './auth.ts';
import { parsed, problem, sendProblem } from '../platform/problems.ts';
import { findSession, SESSION_HOURS, signIn, signOut, welcome } from './service.ts';

const SIGN_INS_PER_MINUTE = 60;

export function teamRoutes(db: DataSource, options: { demo: Welcome['demo']; behindTls: boolean }): Router {
  const router = Router();
  const slowDown = rateLimit({
    limit: SIGN_INS_PER_MINUTE,
    standardHeaders: true,
    legacyHeaders: false,
    handler: (_req, res) => sendProblem(res, problem('tooManyRequests')),
  });

  const begin = (res: Response, { token, session }: { token: string; session: Session }): void => {
    res.cookie(SESSION_COOKIE, token, { ...cookieOptions(options.behindTls), maxAge: SESSION_HOURS * MS_PER_HOUR });
    res.status(201).json(session);
  };

  router.get('/welcome', async (_req, res) => {
    res.json(await welcome(db, options.demo));
  });
  // Nobody is an answer, not a failure: a page that was just opened asks this first.
  router.get('/session', async (req, res) => {
    const token = tokenOf(req);
    res.json(token === null ? null : await findSession(db, token));
  });
  router.post('/session', slowDown, async (req, res) => {
    const { personId, pin } = parsed(signInSchema, req.body);
    begin(res, await signIn(db, personId, pin));
  });
  router.post('/cafe', slowDown, async (req, res) => {
    begin(res, await setUpCafe(db, parsed(newCafeSchema, req.body)));
  });
  router.put('/session/units', requireSession(db), async (req, res) => {
    res.json(await changeUnits(db, sessionOf(req), parsed(unitsSchema, req.body)));
  });
  router.delete('/session', async (req, res) => {
    const token = tokenOf(req);
    if (token !== null) await signOut(db, token);
    res.clearCookie(SESSION_COOKIE, cookieOptions(options.behindTls)).status(204).end();
  });
  return router;
}
