import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { Session, Welcome } from '@tempera/contract/team';
import { sentences } from '@tempera/contract/sentences';
import type { Units } from '@tempera/core/house';
import { MS_PER_HOUR, MS_PER_SECOND } from '@tempera/core/numbers';
import type { DataSource } from 'typeorm';
import { problem, ProblemError } from '../kernel/problems.ts';
import { PersonEntity, SessionEntity, SiteEntity, type PersonRow } from './entities.ts';

const TOKEN_BYTES = 32;
/** A long working day: the tablet asks again in the morning. */
export const SESSION_HOURS = 16;
const FREE_TRIES = 5;
const FIRST_WAIT_S = 30;
const LONGEST_WAIT_S = 15 * 60;

const tokenHash = (token: string): string => createHash('sha256').update(token).digest('base64url');

/** A PIN as it is kept: argon2, salted. */
export const hashPin = (pin: string): Promise<string> => hash(pin);

/** What a tablet may know before anyone signed in: the cafés and the names to choose from. */
export async function welcome(db: DataSource, demo: Welcome['demo']): Promise<Welcome> {
  const [sites, people] = await Promise.all([
    db.getRepository(SiteEntity).find({ order: { name: 'ASC' } }),
    db.getRepository(PersonEntity).find({ order: { name: 'ASC' } }),
  ]);
  return {
    sites: sites.map(({ id, name, timeZone, dayStartsMin }) => ({
      id,
      name,
      timeZone,
      dayStartsMin,
      people: people
        .filter((person) => person.siteId === id)
        .map(({ id: personId, name: who, role }) => ({ id: personId, name: who, role })),
    })),
    demo,
  };
}

/**
 * Checks a PIN and opens a session. Tries are counted before the PIN is looked at, so that parallel guesses count too;
 * from the fifth wrong one on each costs a doubling wait.
 * @returns the session's token, for the cookie only
 */
export async function signIn(
  db: DataSource,
  personId: string,
  pin: string,
): Promise<{ token: string; session: Session }> {
  const counted = await db
    .createQueryBuilder()
    .update(PersonEntity)
    .set({ failedAttempts: () => 'failed_attempts + 1' })
    .where('id = :personId AND (wait_until IS NULL OR wait_until <= now())', { personId })
    .execute();
  const person = await db.getRepository(PersonEntity).findOneBy({ id: personId });
  if (!person) throw problem('notFound');
  if (counted.affected === 0) throw waitProblem(person);
  if (!(await verify(person.pinHash, pin))) throw await wrongPin(db, person);
  await db.getRepository(PersonEntity).update({ id: personId }, { failedAttempts: 0, waitUntil: null });

  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  const sessions = db.getRepository(SessionEntity);
  await sessions.createQueryBuilder().delete().where('expires_at < now()').execute();
  await sessions.insert({
    tokenHash: tokenHash(token),
    siteId: person.siteId,
    personId,
    expiresAt: new Date(Date.now() + SESSION_HOURS * MS_PER_HOUR),
  });
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

/** The person and café of a token; null when it is unknown or has run out. */
export async function findSession(db: DataSource, token: string): Promise<Session | null> {
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
    }[]
  >(
    `SELECT p.id AS "personId", p.name AS "personName", p.role, s.id AS "siteId", s.name AS "siteName", s.time_zone AS "timeZone",
            s.day_starts_min AS "dayStartsMin", p.units
       FROM session t JOIN person p ON p.id = t.person_id JOIN site s ON s.id = t.site_id
      WHERE t.token_hash = $1 AND t.expires_at > now()`,
    [tokenHash(token)],
  );
  const row = rows[0];
  if (!row) return null;
  return {
    person: { id: row.personId, name: row.personName, role: row.role },
    site: { id: row.siteId, name: row.siteName, timeZone: row.timeZone, dayStartsMin: row.dayStartsMin },
    units: row.units,
  };
}

/** Ends a session; one that is unknown has ended already. */
export async function signOut(db: DataSource, token: string): Promise<void> {
  await db.getRepository(SessionEntity).delete({ tokenHash: tokenHash(token) });
}
