import { createHash, randomBytes } from 'node:crypto';
import { MS_PER_HOUR, MS_PER_MINUTE, MS_PER_SECOND } from '@tempera/core/numbers';
import type { ownSessionsSchema, Session } from '@tempera/contract/team';
import { sentences } from '@tempera/contract/sentences';
import type { Units } from '@tempera/core/house';
import type { DataSource, EntityManager } from 'typeorm';
import type { z } from 'zod';
import { endStreamsOf } from '../kernel/live.ts';
import { problem, ProblemError } from '../kernel/problems.ts';
import { PersonEntity, SessionEntity, type PersonRow } from './entities.ts';
import { isPin } from './pin.ts';

const TOKEN_BYTES = 32;
/** A long working day: the tablet asks again in the morning. */
export const SESSION_HOURS = 16;
/** Whoever does books leaves a screen behind; a bar is never a moment without somebody. */
const OFFICE_IDLE_MS = MS_PER_HOUR;
/** How closely it is noted when a session was last seen. */
const SEEN_EVERY_MS = MS_PER_MINUTE;
const FREE_TRIES = 5;
const FIRST_WAIT_S = 30;
const LONGEST_WAIT_S = 15 * 60;

/** What a session is known by; its token itself is in the cookie only. */
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('base64url');

/**
 * Lets somebody try what they know. Tries are counted before it is looked at, so that parallel guesses count too; from the
 * fifth wrong one on each costs a doubling wait.
 * @param knows whether what was typed is right
 * @throws ProblemError notFound, retiredPerson, pinWait, wrongPin
 */
async function letTry(
  db: DataSource,
  personId: string,
  knows: (person: PersonRow) => Promise<boolean>,
): Promise<PersonRow> {
  const counted = await db
    .createQueryBuilder()
    .update(PersonEntity)
    .set({ failedAttempts: () => 'failed_attempts + 1' })
    .where('id = :personId AND (wait_until IS NULL OR wait_until <= now())', { personId })
    .execute();
  const person = await db.getRepository(PersonEntity).findOneBy({ id: personId });
  if (!person) throw problem('notFound');
  if (person.retired) throw problem('retiredPerson');
  if (counted.affected === 0) throw waitProblem(person);
  if (!(await knows(person))) throw await wrongPin(db, person);
  await db.getRepository(PersonEntity).update({ id: personId }, { failedAttempts: 0, waitUntil: null });
  return person;
}

/** Checks somebody's PIN, counting tries. @throws ProblemError noPinYet and all of a try */
export const checkPin = (db: DataSource, personId: string, pin: string): Promise<PersonRow> =>
  letTry(db, personId, (person) => {
    if (person.pinHash === null) throw problem('noPinYet');
    return isPin(person.pinHash, pin);
  });

/** Signs somebody in by what they know. @returns the session's token, for the cookie only */
export async function signIn(
  db: DataSource,
  personId: string,
  knows: (person: PersonRow) => Promise<boolean>,
): Promise<{ token: string; session: Session }> {
  return beginSession(db, await letTry(db, personId, knows));
}

/** Signs somebody in by their PIN. */
export const signInByPin = async (db: DataSource, personId: string, pin: string) =>
  beginSession(db, await checkPin(db, personId, pin));

async function beginSession(
  db: DataSource,
  { id: personId, siteId }: PersonRow,
): Promise<{ token: string; session: Session }> {
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  const sessions = db.getRepository(SessionEntity);
  await sessions.createQueryBuilder().delete().where('expires_at < now()').execute();
  const expiresAt = new Date(Date.now() + SESSION_HOURS * MS_PER_HOUR);
  await sessions.insert({ tokenHash: tokenHash(token), siteId, personId, expiresAt });
  const session = await findSession(db, token);
  if (!session) throw problem('internal');
  return { token, session };
}

function waitProblem(person: PersonRow): ProblemError {
  const waitS = Math.max(1, Math.ceil(((person.waitUntil?.getTime() ?? 0) - Date.now()) / MS_PER_SECOND));
  return new ProblemError('pinWait', sentences.pinWait(waitS), { retryAfterS: waitS });
}

async function wrongPin(db: DataSource, person: PersonRow): Promise<ProblemError> {
  const triesLeft = FREE_TRIES - person.failedAttempts;
  if (triesLeft > 0) return new ProblemError('wrongPin', sentences.wrongPin(triesLeft));
  const waitS = Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** -triesLeft);
  await db
    .getRepository(PersonEntity)
    .update({ id: person.id }, { waitUntil: new Date(Date.now() + waitS * MS_PER_SECOND) });
  return new ProblemError('pinWait', sentences.pinWait(waitS), { retryAfterS: waitS });
}

/** The person and café of a token; null when it is unknown, has run out, or its person is out of the house. */
export async function findSession(db: DataSource, token: string): Promise<Session | null> {
  const hash = tokenHash(token);
  const rows = await db.query<
    {
      personId: string;
      personName: string;
      role: Session['person']['role'];
      siteId: string;
      siteName: string;
      timeZone: string;
      dayStartsMin: number;
      units: Units;
      seenAt: Date;
    }[]
  >(
    `SELECT p.id AS "personId", p.name AS "personName", p.role, s.id AS "siteId", s.name AS "siteName", s.time_zone AS "timeZone",
            s.day_starts_min AS "dayStartsMin", p.units, t.seen_at AS "seenAt"
       FROM session t JOIN person p ON p.id = t.person_id JOIN site s ON s.id = t.site_id
      WHERE t.token_hash = $1 AND t.expires_at > now() AND NOT p.retired`,
    [hash],
  );
  const row = rows[0];
  if (!row) return null;
  const sinceMs = Date.now() - row.seenAt.getTime();
  if (row.role === 'office' && sinceMs > OFFICE_IDLE_MS) return null;
  if (sinceMs > SEEN_EVERY_MS) await db.query('UPDATE session SET seen_at = now() WHERE token_hash = $1', [hash]);
  return {
    person: { id: row.personId, name: row.personName, role: row.role },
    site: { id: row.siteId, name: row.siteName, timeZone: row.timeZone, dayStartsMin: row.dayStartsMin },
    units: row.units,
  };
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
