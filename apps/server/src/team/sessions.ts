import { randomBytes } from 'node:crypto';
import { MS_PER_HOUR, MS_PER_MINUTE } from '@tempera/core/numbers';
import type { UsedPasskey } from '@tempera/contract/passkeys';
import type { ownSessionsSchema, proofSchema, Session } from '@tempera/contract/team';
import type { Units } from '@tempera/core/house';
import type { DataSource, EntityManager } from 'typeorm';
import type { z } from 'zod';
import { endStreamsOf } from '../kernel/live.ts';
import { prepared } from '../kernel/prepared.ts';
import { together } from '../kernel/together.ts';
import { problem, ProblemError } from '../kernel/problems.ts';
import { PersonEntity, SessionEntity, type PersonRow } from './entities.ts';
import { isPin } from './pin.ts';
import { tokenHash } from './tokens.ts';
import { letTry, triesOf } from './tries.ts';

const TOKEN_BYTES = 32;
/** A long working day: the tablet asks again in the morning. */
export const SESSION_HOURS = 16;
/** Whoever does books leaves a screen behind; a bar is never a moment without somebody. */
const OFFICE_IDLE_MS = MS_PER_HOUR;
/** How closely it is noted when a session was last seen. */
const SEEN_EVERY_MS = MS_PER_MINUTE;
/** Found in one statement, where so many ask at one time. */
const MOST_SESSIONS = 32;

/** @throws ProblemError notFound, retiredPerson */
async function insider(db: DataSource, personId: string): Promise<PersonRow> {
  const person = await db.getRepository(PersonEntity).findOneBy({ id: personId });
  if (!person) throw problem('notFound');
  if (person.retired) throw problem('retiredPerson');
  return person;
}

/** Checks somebody's PIN, counting tries. @throws ProblemError notFound, retiredPerson, noPinYet, pinWait, wrongPin */
export async function checkPin(
  db: DataSource,
  personId: string,
  pin: string,
  deviceId: string | null,
): Promise<PersonRow> {
  const person = await insider(db, personId);
  const { pinHash } = person;
  if (pinHash === null) throw problem('noPinYet');
  await letTry(triesOf(db, personId, deviceId), () => isPin(pinHash, pin));
  return person;
}

/** Checks somebody's long password, counting tries. @throws ProblemError notFound, retiredPerson, pinWait, wrongPassword */
async function checkPassword(
  db: DataSource,
  personId: string,
  password: string,
  deviceId: string | null,
): Promise<PersonRow> {
  const person = await insider(db, personId);
  try {
    const { passwordHash } = person;
    await letTry(triesOf(db, personId, deviceId), async () => passwordHash !== null && isPin(passwordHash, password));
    return person;
  } catch (error) {
    throw error instanceof ProblemError && error.code === 'wrongPin' ? problem('wrongPassword') : error;
  }
}

/** Signs somebody in by what they know. @returns the session's token, for the cookie only */
export async function signIn(
  db: DataSource,
  personId: string,
  deviceId: string | null,
  knows: (person: PersonRow) => Promise<boolean>,
): Promise<{ token: string; session: Session }> {
  const person = await insider(db, personId);
  await letTry(triesOf(db, personId, deviceId), () => knows(person));
  return beginSession(db, person, deviceId);
}

/** Signs somebody in by their PIN. */
export const signInByPin = async (db: DataSource, personId: string, pin: string, deviceId: string | null) =>
  beginSession(db, await checkPin(db, personId, pin, deviceId), deviceId);

/** Signs somebody in by their long password, from where no tablet is enrolled. */
export const signInByPassword = async (db: DataSource, personId: string, password: string) =>
  beginSession(db, await checkPassword(db, personId, password, null), null);

/** Somebody who may come from elsewhere: a head or the office, by name and a long password. */
export async function personAway(db: DataSource, name: string): Promise<PersonRow | null> {
  const [row] = await db.query<{ id: string }[]>(
    `SELECT id FROM person WHERE lower(name) = lower($1) AND role IN ('head', 'office') AND NOT retired
        AND password_hash IS NOT NULL LIMIT 1`,
    [name],
  );
  return row ? db.getRepository(PersonEntity).findOneBy({ id: row.id }) : null;
}

/** Signs somebody in whose passkey was proven. */
export const signInProven = async (db: DataSource, personId: string) =>
  beginSession(db, await insider(db, personId), null);

async function beginSession(
  db: DataSource,
  { id: personId, siteId }: PersonRow,
  deviceId: string | null,
): Promise<{ token: string; session: Session }> {
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  const sessions = db.getRepository(SessionEntity);
  await sessions.createQueryBuilder().delete().where('expires_at < now()').execute();
  const expiresAt = new Date(Date.now() + SESSION_HOURS * MS_PER_HOUR);
  await sessions.insert({ tokenHash: tokenHash(token), siteId, personId, expiresAt, deviceId });
  const session = await findSession(db, token);
  if (!session) throw problem('internal');
  return { token, session };
}

interface SessionRow {
  hash: string;
  personId: string;
  personName: string;
  role: Session['person']['role'];
  siteId: string;
  siteName: string;
  timeZone: string;
  dayStartsMin: number;
  units: Units;
  seenAt: Date;
  provenAt: Date;
}

/** The person and café of a token; null when it is unknown, has run out, or its person is out of the house. */
type FindSession = (token: string) => Promise<Session | null>;

/** Finds sessions one by one where they are asked for so, and in one statement where they are asked for together. */
export function sessionFinder(db: DataSource): FindSession {
  const find = together(MOST_SESSIONS, async (hashes: readonly string[]) => {
    const rows = await sessionRows(db, hashes);
    const byHash = new Map(rows.map((row) => [row.hash, row]));
    return hashes.map((hash) => ({ done: byHash.get(hash) ?? null }));
  });
  return async (token) => {
    const row = await find(tokenHash(token));
    return row && inUse(db, row);
  };
}

/** The person and café of a token; null when it is unknown, has run out, or its person is out of the house. */
export async function findSession(db: DataSource, token: string): Promise<Session | null> {
  const [row] = await sessionRows(db, [tokenHash(token)]);
  return row ? inUse(db, row) : null;
}

const sessionRows = (db: DataSource, hashes: readonly string[]): Promise<SessionRow[]> =>
  prepared<SessionRow>(
    db,
    `SELECT t.token_hash AS hash, p.id AS "personId", p.name AS "personName", p.role, s.id AS "siteId", s.name AS "siteName", s.time_zone AS "timeZone",
            s.day_starts_min AS "dayStartsMin", p.units, t.seen_at AS "seenAt", t.proven_at AS "provenAt"
       FROM session t JOIN person p ON p.id = t.person_id JOIN site s ON s.id = t.site_id
      WHERE t.token_hash = ANY($1) AND t.expires_at > now() AND NOT p.retired`,
    [hashes],
  );

/** Notes now and then that a session is in use. @returns null where it was left too long for what its person may see */
async function inUse(db: DataSource, row: SessionRow): Promise<Session | null> {
  const sinceMs = Date.now() - row.seenAt.getTime();
  if (row.role === 'office' && sinceMs > OFFICE_IDLE_MS) return null;
  if (sinceMs > SEEN_EVERY_MS) await db.query('UPDATE session SET seen_at = now() WHERE token_hash = $1', [row.hash]);
  return {
    person: { id: row.personId, name: row.personName, role: row.role },
    site: { id: row.siteId, name: row.siteName, timeZone: row.timeZone, dayStartsMin: row.dayStartsMin },
    units: row.units,
    provenAt: row.provenAt.toISOString(),
  };
}

/**
 * Whoever is signed in shows that it is still them at the tablet.
 * @param holds proves that they hold a passkey of their own
 * @throws ProblemError wrongPassword, wrongPasskey, and all of a try at a PIN
 */
export async function proveAgain(
  db: DataSource,
  { person }: Session,
  token: string,
  proof: z.infer<typeof proofSchema>,
  { deviceId, holds }: { deviceId: string | null; holds: (passkey: UsedPasskey) => Promise<void> },
): Promise<Session> {
  if ('pin' in proof) await checkPin(db, person.id, proof.pin, deviceId);
  else if ('password' in proof) await checkPassword(db, person.id, proof.password, deviceId);
  else await holds(proof.passkey);
  await db.query('UPDATE session SET proven_at = now() WHERE token_hash = $1', [tokenHash(token)]);
  const proven = await findSession(db, token);
  if (!proven) throw problem('signInFirst');
  return proven;
}

/** Where somebody is signed in, the newest first. */
export async function ownSessions(
  db: DataSource,
  personId: string,
  token: string,
): Promise<z.infer<typeof ownSessionsSchema>> {
  const rows = await db.getRepository(SessionEntity).find({ where: { personId }, order: { createdAt: 'DESC' } });
  const live = rows.filter(({ expiresAt }) => expiresAt.getTime() > Date.now());
  return {
    sessions: live.map((row) => ({
      // Enough to tell them apart, of no use to anybody else.
      id: row.tokenHash.slice(0, 8),
      since: row.createdAt.toISOString(),
      seen: row.seenAt.toISOString(),
      here: row.tokenHash === tokenHash(token),
    })),
  };
}

/** Ends sessions, and the streams of news that they hold open, on every server process. */
export async function endSessions(
  db: DataSource | EntityManager,
  which: { token: string } | { personId: string; but?: string },
): Promise<void> {
  const [where, values] =
    'token' in which
      ? ['token_hash = $1', [tokenHash(which.token)]]
      : ['person_id = $1 AND token_hash <> $2', [which.personId, which.but === undefined ? '' : tokenHash(which.but)]];
  const [ended] = await db.query<[{ hash: string }[], number]>(
    `DELETE FROM session WHERE ${where} RETURNING token_hash AS hash`,
    values,
  );
  for (const { hash } of ended) await endStreamsOf(db, hash);
}

/** Which of these sessions have ended or run out. @param hashes as `tokenHash` gives them */
export async function endedAmong(db: DataSource, hashes: string[]): Promise<string[]> {
  const rows = await db.query<{ hash: string }[]>(
    `SELECT asked.hash FROM unnest($1::text[]) AS asked (hash)
      WHERE NOT EXISTS (SELECT 1 FROM session s WHERE s.token_hash = asked.hash AND s.expires_at > now())`,
    [hashes],
  );
  return rows.map(({ hash }) => hash);
}
