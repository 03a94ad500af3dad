import { MS_PER_HOUR } from '@tempera/core/numbers';
import type { Session } from '@tempera/contract/team';
import type { Request, Response } from 'express';
import { roomOf } from '../kernel/room.ts';
import { problem } from '../kernel/problems.ts';
import { sheetHandlers } from '../kernel/sheets.ts';
import { changeUnits, setUpCafe } from './cafe.ts';
import { cookieOptions, SESSION_COOKIE, tokenOf } from './auth.ts';
import { teamEntities } from './entities.ts';
import { ATeam1799000000000 } from './migrations/1799000000000-a-team.ts';
import { AYes1799000000001 } from './migrations/1799000000001-a-yes.ts';
import { Audit1799100000002 } from './migrations/1799100000002-audit.ts';
import { Devices1799100000003 } from './migrations/1799100000003-devices.ts';
import { UnitsOfTheHouse1799900000000 } from './migrations/1799900000000-units-of-the-house.ts';
import { ProvenAgain1799900000001 } from './migrations/1799900000001-proven-again.ts';
import { Passkeys1799900000003 } from './migrations/1799900000003-passkeys.ts';
import { WhoSignedOff1799900000004 } from './migrations/1799900000004-who-signed-off.ts';
import { Calendar1799700000002 } from './migrations/1799700000002-calendar.ts';
import { codeForDevice, deviceOf, devicesOf, enrolByCode, enrolHere, strikeOff, tabletFor } from './devices.ts';
import { noteDoor, throughTheDoor } from './audit.ts';
import {
  forgetPasskey,
  keepPasskey,
  passkeyShown,
  passkeysOf,
  passkeyToMake,
  passkeyToUse,
  provePasskey,
} from './passkeys.ts';
import { access, changePin, handCode, personTable, setFirstPin, setPassword, signInAway } from './people.ts';
import {
  endSessions,
  findSession,
  ownSessions,
  personAway,
  proveAgain,
  SESSION_HOURS,
  signInByPin,
  signInProven,
} from './sessions.ts';
import { welcome } from './welcome.ts';
import { giveYes } from './yes.ts';

/** What the browser is called in which a café was set up, until a head enrols it under another name. */
const FIRST_DEVICE = 'First device';

/** People, sessions and the first café. */
export const teamRoom = roomOf({
  name: 'team',
  tables: teamEntities,
  migrations: [
    ATeam1799000000000,
    AYes1799000000001,
    Audit1799100000002,
    Devices1799100000003,
    Calendar1799700000002,
    UnitsOfTheHouse1799900000000,
    ProvenAgain1799900000001,
    Passkeys1799900000003,
    WhoSignedOff1799900000004,
  ],
  handlers: ({ db, demo, setUpCode, config }) => {
    const overTls = config.behindTls || config.tls !== null;
    /** Whoever was signed in on this device is not any more: a token never outlives the next sign-in over it. */
    const endFormer = async (req: Request): Promise<void> => {
      const former = tokenOf(req);
      if (former !== null) await endSessions(db, { token: former });
    };
    /** The tablet that somebody signed in types at; null: none that is enrolled. */
    const tabletOf = async (req: Request): Promise<string | null> => (await deviceOf(db, req))?.id ?? null;
    const begin = async (
      req: Request,
      res: Response,
      { token, session }: { token: string; session: Session },
    ): Promise<Session> => {
      await endFormer(req);
      res.cookie(SESSION_COOKIE, token, { ...cookieOptions(overTls), maxAge: SESSION_HOURS * MS_PER_HOUR });
      return session;
    };
    return {
      'GET /welcome': async ({ req }) => {
        const token = tokenOf(req);
        return welcome(db, req, token === null ? null : await findSession(db, token), demo);
      },
      'GET /session': ({ req }) => {
        const token = tokenOf(req);
        return token === null ? null : findSession(db, token);
      },
      'POST /session': async ({ req, res, body: { personId, pin } }) =>
        throughTheDoor(db, req, personId, 'signedIn', async () =>
          begin(req, res, await signInByPin(db, personId, pin, await tabletFor(db, req, personId))),
        ),
      'POST /session/first': async ({ req, res, body }) =>
        throughTheDoor(db, req, body.personId, 'firstPin', async () =>
          begin(req, res, await setFirstPin(db, body, await tabletFor(db, req, body.personId))),
        ),
      'DELETE /session': async ({ req, res }) => {
        const token = tokenOf(req);
        const former = token === null ? null : await findSession(db, token);
        if (former) await noteDoor(db, req, 'signedOut', { aboutId: former.person.id, byId: former.person.id });
        await endFormer(req);
        res.clearCookie(SESSION_COOKIE, cookieOptions(overTls));
        return undefined;
      },
      'PUT /session/units': ({ session, body }) => changeUnits(db, session, body),
      'PUT /session/pin': async ({ session, req, body }) => {
        await throughTheDoor(db, req, session.person.id, 'pinChanged', () =>
          tabletOf(req).then((deviceId) => changePin(db, session, tokenOf(req) ?? '', body, deviceId)),
        );
        return undefined;
      },
      'POST /session/proof': ({ session, req, body }) =>
        throughTheDoor(db, req, session.person.id, 'provenAgain', async () =>
          proveAgain(db, session, tokenOf(req) ?? '', body, {
            deviceId: await tabletOf(req),
            holds: async (used) => {
              const known = await passkeyShown(db, used);
              if (known.personId !== session.person.id) throw problem('wrongPasskey');
              await provePasskey(db, req, known, used);
            },
          }),
        ),
      'POST /session/passkey/options': ({ req }) => passkeyToUse(db, req),
      'POST /session/passkey': async ({ req, res, body }) => {
        const known = await passkeyShown(db, body);
        return throughTheDoor(db, req, known.personId, 'signedIn', async () => {
          await provePasskey(db, req, known, body);
          return begin(req, res, await signInProven(db, known.personId));
        });
      },
      'GET /session/passkeys': ({ session }) => passkeysOf(db, session.person.id),
      'POST /session/passkeys/options': ({ session, req }) => passkeyToMake(db, req, session),
      'POST /session/passkeys': async ({ session, req, body }) => {
        await throughTheDoor(db, req, session.person.id, 'passkeyMade', () => keepPasskey(db, req, session, body));
        return passkeysOf(db, session.person.id);
      },
      'DELETE /session/passkeys/{id}': async ({ session, req, params }) => {
        await throughTheDoor(db, req, session.person.id, 'passkeyForgotten', () =>
          forgetPasskey(db, session.person.id, params.id),
        );
        return undefined;
      },
      'GET /session/own': ({ session, req }) => ownSessions(db, session.person.id, tokenOf(req) ?? ''),
      'DELETE /session/others': async ({ session, req }) => {
        await endSessions(db, { personId: session.person.id, but: tokenOf(req) ?? '' });
        await noteDoor(db, req, 'othersEnded', { aboutId: session.person.id, byId: session.person.id });
        return undefined;
      },
      'POST /yes': async ({ session, req, body }) => giveYes(db, session, body, await tabletOf(req)),
      'POST /session/away': async ({ req, res, body }) => {
        const person = await personAway(db, body.name);
        const enter = async () => begin(req, res, await signInAway(db, body));
        return person ? throughTheDoor(db, req, person.id, 'signedIn', enter) : enter();
      },
      'PUT /session/password': async ({ session, req, body }) => {
        await throughTheDoor(db, req, session.person.id, 'passwordSet', async () =>
          setPassword(db, session, body, await tabletOf(req)),
        );
        return undefined;
      },
      'POST /device': async ({ res, body }) => {
        await enrolByCode(db, body.code, res, overTls);
        return undefined;
      },
      'GET /team/devices': async ({ session, req }) => devicesOf(db, session.site.id, await deviceOf(db, req)),
      'POST /team/devices': async ({ session, req, res, body }) => {
        await enrolHere(db, { siteId: session.site.id, personId: session.person.id }, body.name, res, overTls);
        await noteDoor(db, req, 'deviceEnrolled', { aboutId: session.person.id, byId: session.person.id });
        return undefined;
      },
      'POST /team/devices/code': async ({ session, req, body }) => {
        const handed = await codeForDevice(db, session, body.name);
        await noteDoor(db, req, 'deviceEnrolled', { aboutId: session.person.id, byId: session.person.id });
        return handed;
      },
      'DELETE /team/devices/{id}': async ({ session, req, params }) => {
        await strikeOff(db, session.site.id, params.id);
        await noteDoor(db, req, 'deviceStruckOff', { aboutId: session.person.id, byId: session.person.id });
        return undefined;
      },
      ...sheetHandlers(db, personTable),
      'GET /team/access': ({ session }) => access(db, session.site.id),
      'POST /team/people/{id}/code': async ({ session, params, req }) => {
        const handed = await handCode(db, session, params.id);
        await noteDoor(db, req, 'codeHanded', { aboutId: params.id, byId: session.person.id });
        return handed;
      },
      'POST /cafe': async ({ req, res, body }) => {
        const enrol = async (here: { siteId: string; personId: string }): Promise<string> => {
          const device = await deviceOf(db, req);
          return device?.siteId === here.siteId ? device.id : enrolHere(db, here, FIRST_DEVICE, res, overTls);
        };
        return begin(req, res, await setUpCafe(db, body, setUpCode, enrol));
      },
    };
  },
});
