import { parse as parseCookies } from 'cookie';
import type { CookieOptions, Request } from 'express';
import type { DataSource } from 'typeorm';
import type { Identify } from '../kernel/session.ts';
import { sessionFinder } from './sessions.ts';

/** The cookie that carries a session’s token. */
export const SESSION_COOKIE = 'tempera_session';

/** The session's token that a request carries; null when it carries none. */
export function tokenOf(req: Request): string | null {
  return parseCookies(req.headers.cookie ?? '')[SESSION_COOKIE] ?? null;
}

/** How that cookie is kept from scripts and other sites. */
export function cookieOptions(overTls: boolean): CookieOptions {
  return { httpOnly: true, sameSite: 'strict', secure: overTls, path: '/' };
}

/** Who asks, by the session that their cookie names. */
export function identifyBySession(db: DataSource): Identify {
  const find = sessionFinder(db);
  return async (req) => {
    const token = tokenOf(req);
    return token === null ? null : find(token);
  };
}
