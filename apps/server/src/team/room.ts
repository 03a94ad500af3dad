import { MS_PER_HOUR } from '@tempera/core/numbers';
import type { Session } from '@tempera/contract/team';
import type { Response } from 'express';
import { roomOf } from '../kernel/room.ts';
import { changeUnits, setUpCafe } from './cafe.ts';
import { cookieOptions, SESSION_COOKIE, tokenOf } from './auth.ts';
import { teamEntities } from './entities.ts';
import { findSession, SESSION_HOURS, signIn, signOut, welcome } from './service.ts';

/** People, sessions and the first café. */
export const teamRoom = roomOf({
  name: 'team',
  tables: teamEntities,
  handlers: ({ db, demo, config: { behindTls } }) => {
    const begin = (res: Response, { token, session }: { token: string; session: Session }): Session => {
      res.cookie(SESSION_COOKIE, token, { ...cookieOptions(behindTls), maxAge: SESSION_HOURS * MS_PER_HOUR });
      return session;
    };
    return {
      'GET /welcome': () => welcome(db, demo),
      'GET /session': ({ req }) => {
        const token = tokenOf(req);
        return token === null ? null : findSession(db, token);
      },
      'POST /session': async ({ res, body: { personId, pin } }) => begin(res, await signIn(db, personId, pin)),
      'DELETE /session': async ({ req, res }) => {
        const token = tokenOf(req);
        if (token !== null) await signOut(db, token);
        res.clearCookie(SESSION_COOKIE, cookieOptions(behindTls));
        return undefined;
      },
      'PUT /session/units': ({ session, body }) => changeUnits(db, session, body),
      'POST /cafe': async ({ res, body }) => begin(res, await setUpCafe(db, body)),
    };
  },
});
