import type { NewPasskey, ownPasskeysSchema, PasskeyOptions, UsedPasskey } from '@tempera/contract/passkeys';
import type { Session } from '@tempera/contract/team';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import type { Request } from 'express';
import type { DataSource, EntityManager } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import type { z } from 'zod';
import { problem } from '../kernel/problems.ts';

/** Somebody who looks for their phone is still in time. */
const CHALLENGE_MINUTES = 5;
const MOST_PASSKEYS = 20;

/** The address that a browser made or used a passkey at; `sameSiteOnly` has seen that it is this server's own. */
function placeOf(req: Request): { origin: string; id: string } {
  const origin = req.get('origin') ?? `${req.protocol}://${req.get('host') ?? ''}`;
  if (!URL.canParse(origin)) throw problem('otherSite');
  return { origin, id: new URL(origin).hostname };
}

/** Keeps a challenge until it is answered, once. @param maker whose passkey is made; null: somebody comes in, and nobody knows where yet */
async function keepChallenge(db: DataSource, challenge: string, maker: Session | null): Promise<void> {
  await db.query('DELETE FROM passkey_challenge WHERE until < now()');
  const until = new Date(Date.now() + CHALLENGE_MINUTES * MS_PER_MINUTE);
  await db.query('INSERT INTO passkey_challenge (challenge, site_id, person_id, until) VALUES ($1, $2, $3, $4)', [
    challenge,
    maker?.site.id ?? null,
    maker?.person.id ?? null,
    until,
  ]);
}

/** Whether this challenge was given and is answered for the first time. */
const answers =
  (db: DataSource, personId: string | null) =>
  async (challenge: string): Promise<boolean> => {
    const [taken] = await db.query<[object[], number]>(
      `DELETE FROM passkey_challenge WHERE challenge = $1 AND person_id IS NOT DISTINCT FROM $2 AND until > now()
        RETURNING challenge`,
      [challenge, personId],
    );
    return taken.length === 1;
  };

/** What a browser makes a passkey with: kept on the device and opened by its owner, so that it names them by itself. */
export async function passkeyToMake(db: DataSource, req: Request, session: Session): Promise<PasskeyOptions> {
  const { person, site } = session;
  const own = await db.query<{ id: string }[]>('SELECT credential_id AS id FROM passkey WHERE person_id = $1', [
    person.id,
  ]);
  const options = await generateRegistrationOptions({
    rpName: 'Tempera',
    rpID: placeOf(req).id,
    userID: new TextEncoder().encode(person.id),
    userName: person.name,
    userDisplayName: `${person.name}, ${site.name}`,
    excludeCredentials: own,
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  await keepChallenge(db, options.challenge, session);
  return { ...options };
}

/** Keeps a passkey that was just made. @throws ProblemError wrongPasskey */
export async function keepPasskey(
  db: DataSource,
  req: Request,
  { person, site }: Session,
  { name, made }: NewPasskey,
): Promise<void> {
  const { origin, id } = placeOf(req);
  const { registrationInfo } = await orWrong(
    verifyRegistrationResponse({
      response: {
        ...made,
        response: { ...made.response, transports: made.response.transports },
        clientExtensionResults: {},
      },
      expectedChallenge: answers(db, person.id),
      expectedOrigin: origin,
      expectedRPID: id,
    }),
  );
  if (!registrationInfo) throw problem('wrongPasskey');
  const { credential } = registrationInfo;
  const [kept] = await db.query<(object | undefined)[]>(
    `INSERT INTO passkey (id, site_id, person_id, name, credential_id, public_key, counter, transports)
     SELECT $1, $2, $3, $4, $5, $6, $7, $8 WHERE (SELECT count(*) FROM passkey WHERE person_id = $3) < $9
     ON CONFLICT DO NOTHING RETURNING id`,
    [
      ...[uuidv7(), site.id, person.id, name, credential.id, Buffer.from(credential.publicKey).toString('base64url')],
      ...[credential.counter, JSON.stringify(made.response.transports), MOST_PASSKEYS],
    ],
  );
  if (!kept) throw problem('wrongPasskey');
}

/** What a browser asks for a passkey with: any that it holds for this address, so that nobody learns who has one. */
export async function passkeyToUse(db: DataSource, req: Request): Promise<PasskeyOptions> {
  const options = await generateAuthenticationOptions({ rpID: placeOf(req).id, userVerification: 'required' });
  await keepChallenge(db, options.challenge, null);
  return { ...options };
}

/** A passkey that is kept here, and its owner. */
export interface KnownPasskey {
  id: string;
  personId: string;
  credentialId: string;
  publicKey: string;
  counter: string;
}

/** The passkey that somebody shows; nothing is proven yet. @throws ProblemError wrongPasskey: none that is kept, or its owner is out */
export async function passkeyShown(db: DataSource, used: UsedPasskey): Promise<KnownPasskey> {
  const [known] = await db.query<KnownPasskey[]>(
    `SELECT k.id, k.person_id AS "personId", k.credential_id AS "credentialId", k.public_key AS "publicKey", k.counter
       FROM passkey k JOIN person p ON p.id = k.person_id
      WHERE k.credential_id = $1 AND p.role IN ('head', 'office') AND NOT p.retired`,
    [used.id],
  );
  if (!known) throw problem('wrongPasskey');
  return known;
}

/** Proves that who shows a passkey holds it, now, for this address. @throws ProblemError wrongPasskey */
export async function provePasskey(
  db: DataSource,
  req: Request,
  { id, credentialId, publicKey, counter }: KnownPasskey,
  used: UsedPasskey,
): Promise<void> {
  const place = placeOf(req);
  const { verified, authenticationInfo } = await orWrong(
    verifyAuthenticationResponse({
      response: { ...used, clientExtensionResults: {} },
      expectedChallenge: answers(db, null),
      expectedOrigin: place.origin,
      expectedRPID: place.id,
      credential: {
        id: credentialId,
        publicKey: new Uint8Array(Buffer.from(publicKey, 'base64url')),
        counter: Number(counter),
      },
    }),
  );
  if (!verified) throw problem('wrongPasskey');
  await db.query('UPDATE passkey SET counter = $2, used_at = now() WHERE id = $1', [id, authenticationInfo.newCounter]);
}

/** The library throws at whatever does not fit: a foreign address, an answer of before, a signature by another key. */
async function orWrong<T>(verifying: Promise<T>): Promise<T> {
  try {
    return await verifying;
  } catch {
    throw problem('wrongPasskey');
  }
}

/** Passkeys of one's own. */
export async function passkeysOf(db: DataSource, personId: string): Promise<z.infer<typeof ownPasskeysSchema>> {
  const rows = await db.query<{ id: string; name: string; madeAt: Date; usedAt: Date | null }[]>(
    `SELECT id, name, made_at AS "madeAt", used_at AS "usedAt" FROM passkey WHERE person_id = $1 ORDER BY made_at DESC`,
    [personId],
  );
  return {
    passkeys: rows.map(({ madeAt, usedAt, ...row }) => ({
      ...row,
      madeAt: madeAt.toISOString(),
      usedAt: usedAt?.toISOString() ?? null,
    })),
  };
}

/** A passkey of one's own opens nothing any more. @throws ProblemError notFound */
export async function forgetPasskey(db: DataSource, personId: string, id: string): Promise<void> {
  const [gone] = await db.query<[object[], number]>(
    'DELETE FROM passkey WHERE id = $1 AND person_id = $2 RETURNING id',
    [id, personId],
  );
  if (gone.length === 0) throw problem('notFound');
}

/** None of this person's passkeys opens anything any more. */
export async function forgetPasskeys(tx: EntityManager, personId: string): Promise<void> {
  await tx.query('DELETE FROM passkey WHERE person_id = $1', [personId]);
}
