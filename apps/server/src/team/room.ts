import { MS_PER_HOUR } from '@tempera/core/numbers';
import type { Session } from '@tempera/contract/team';
import type { Request, Response } from 'express';
import { roomOf } from '../kernel/room.ts';
import { sheetHandlers } from '../kernel/sheets.ts';
import { changeUnits, setUpCafe } from './cafe.ts';
import { cookieOptions, SESSION_COOKIE, tokenOf } from './auth.ts';
import { teamEntities } from './entities.ts';
import { ATeam1799000000000 } from './migrations/1799000000000-a-team.ts';
import { AYes1799000000001 } from './migrations/1799000000001-a-yes.ts';
import { Audit1799100000002 } from './migrations/1799100000002-audit.ts';
import { noteDoor, throughTheDoor } from './audit.ts';
import { access, changePin, handCode, personTable, setFirstPin } from './people.ts';
import { endSessions, findSession, ownSessions, SESSION_HOURS, signInByPin } from './sessions.ts';
import { welcome } from './welcome.ts';
import { giveYes } from './yes.ts';

/** People, sessions and the first café. */
export const teamRoom = roomOf({
  name: 'team',
  tables: teamEntities,
  migrations: [ATeam1799000000000, AYes1799000000001, Audit1799100000002],
  handlers: ({ db, demo, setUpCode, config: { behindTls } }) => {
    /** Whoever was signed in on this device is not any more: a token never outlives the next sign-in over it. */
    const endFormer = async (req: Request): Promise<void> => {
      const former = tokenOf(req);
      if (former !== null) await endSessions(db, { token: former });
    };
    const begin = async (
      req: Request,
      res: Response,
      { token, session }: { token: string; session: Session },
    ): Promise<Session> => {
      await endFormer(req);
      res.cookie(SESSION_COOKIE, token, { ...cookieOptions(behindTls), maxAge: SESSION_HOURS * MS_PER_HOUR });
      return session;
    };
    return {
      'GET /welcome': () => welcome(db, demo),
      'GET /session': ({ req }) => {
        const token = tokenOf(req);
        return token === null ? null : findSession(db, token);
      },
      'POST /session': async ({ req, res, body: { personId, pin } }) =>
        throughTheDoor(db, req, personId, 'signedIn', async () =>
          begin(req, res, await signInByPin(db, personId, pin)),
        ),
      'POST /session/first': async ({ req, res, body }) =>
        throughTheDoor(db, req, body.personId, 'firstPin', async () => begin(req, res, await setFirstPin(db, body))),
      'DELETE /session': async ({ req, res }) => {
        const token = tokenOf(req);
        const former = token === null ? null : await findSession(db, token);
        if (former) await noteDoor(db, req, 'signedOut', { aboutId: former.person.id, byId: former.person.id });
        await endFormer(req);
        res.clearCookie(SESSION_COOKIE, cookieOptions(behindTls));
        return undefined;
      },
      'PUT /session/units': ({ session, body }) => changeUnits(db, session, body),
      'PUT /session/pin': async ({ session, req, body }) => {
        await throughTheDoor(db, req, session.person.id, 'pinChanged', () =>
          changePin(db, session, tokenOf(req) ?? '', body),
        );
        return undefined;
      },
      'GET /session/own': ({ session, req }) => ownSessions(db, session.person.id, tokenOf(req) ?? ''),
      'DELETE /session/others': async ({ session, req }) => {
        await endSessions(db, { personId: session.person.id, but: tokenOf(req) ?? '' });
        await noteDoor(db, req, 'othersEnded', { aboutId: session.person.id, byId: session.person.id });
        return undefined;
      },
      'POST /yes': ({ session, body }) => giveYes(db, session, body),
      ...sheetHandlers(db, personTable),
      'GET /team/access': ({ session }) => access(db, session.site.id),
      'POST /team/people/{id}/code': async ({ session, params, req }) => {
        const handed = await handCode(db, session, params.id);
        await noteDoor(db, req, 'codeHanded', { aboutId: params.id, byId: session.person.id });
        return handed;
      },
      'POST /cafe': async ({ req, res, body }) => begin(req, res, await setUpCafe(db, body, setUpCode)),
    };
  },
});
