import { signInSchema, type Welcome } from '@tempera/contract/team';
import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { DataSource } from 'typeorm';
import { cookieOptions, requireSession, SESSION_COOKIE, sessionOf, tokenOf } from './auth.ts';
import { parsed, problem, sendProblem } from '../platform/problems.ts';
import { SESSION_HOURS, signIn, signOut, welcome } from './service.ts';

const MS_PER_HOUR = 3_600_000;
const SIGN_INS_PER_MINUTE = 60;

export function teamRoutes(db: DataSource, options: { demo: Welcome['demo']; behindTls: boolean }): Router {
  const router = Router();
  const slowDown = rateLimit({
    limit: SIGN_INS_PER_MINUTE,
    standardHeaders: true,
    legacyHeaders: false,
    handler: (_req, res) => sendProblem(res, problem('tooManyRequests')),
  });

  router.get('/welcome', async (_req, res) => {
    res.json(await welcome(db, options.demo));
  });
  router.get('/session', requireSession(db), (req, res) => {
    res.json(sessionOf(req));
  });
  router.post('/session', slowDown, async (req, res) => {
    const { personId, pin } = parsed(signInSchema, req.body);
    const { token, session } = await signIn(db, personId, pin);
    res.cookie(SESSION_COOKIE, token, { ...cookieOptions(options.behindTls), maxAge: SESSION_HOURS * MS_PER_HOUR });
    res.status(201).json(session);
  });
  router.delete('/session', async (req, res) => {
    const token = tokenOf(req);
    if (token !== null) await signOut(db, token);
    res.clearCookie(SESSION_COOKIE, cookieOptions(options.behindTls)).status(204).end();
  });
  return router;
}
