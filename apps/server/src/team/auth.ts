import { parse as parseCookies } from 'cookie';
import type { Session } from '@tempera/contract/team';
import type { CookieOptions, Request, RequestHandler } from 'express';
import type { DataSource } from 'typeorm';
import { findSession } from './service.ts';
import { problem } from '../platform/problems.ts';

export const SESSION_COOKIE = 'tempera_session';

const sessions = new WeakMap<Request, Session>();

export function tokenOf(req: Request): string | null {
  return parseCookies(req.headers.cookie ?? '')[SESSION_COOKIE] ?? null;
}

export function cookieOptions(behindTls: boolean): CookieOptions {
  return { httpOnly: true, sameSite: 'strict', secure: behindTls, path: '/' };
}

/** Lets only signed-in people through, and remembers who for `sessionOf`. */
export function requireSession(db: DataSource): RequestHandler {
  return async (req, _res, next) => {
    const token = tokenOf(req);
    const session = token === null ? null : await findSession(db, token);
    if (!session) throw problem('signInFirst');
    sessions.set(req, session);
    next();
  };
}

/** Who is asking, behind `requireSession`. @throws ProblemError signInFirst elsewhere. */
export function sessionOf(req: Request): Session {
  const session = sessions.get(req);
  if (!session) throw problem('signInFirst');
  return session;
}
