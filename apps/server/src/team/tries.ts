import { MS_PER_SECOND } from '@tempera/core/numbers';
import { sentences } from '@tempera/contract/sentences';
import type { DataSource } from 'typeorm';
import { ProblemError } from '../kernel/problems.ts';

const FREE_TRIES = 5;
const FIRST_WAIT_S = 30;
const LONGEST_WAIT_S = 15 * 60;

/**
 * Tries at what somebody knows: at an enrolled tablet they count by tablet and person, so that nobody is locked out by guesses made
 * elsewhere; where no tablet is enrolled, and from elsewhere, by person.
 */
export interface Tries {
  /** Counts one more, before it is looked at, so that parallel guesses count too. Null: they must wait. */
  begin(): Promise<number | null>;
  waitUntil(): Promise<Date | null>;
  makeWait(until: Date): Promise<void>;
  succeed(): Promise<void>;
}

const byPerson = (db: DataSource, personId: string): Tries => ({
  begin: async () => {
    const [rows] = await db.query<[{ failed: number }[], number]>(
      `UPDATE person SET failed_attempts = failed_attempts + 1
        WHERE id = $1 AND (wait_until IS NULL OR wait_until <= now()) RETURNING failed_attempts AS failed`,
      [personId],
    );
    return rows[0]?.failed ?? null;
  },
  waitUntil: async () => {
    const rows = await db.query<{ at: Date | null }[]>('SELECT wait_until AS at FROM person WHERE id = $1', [personId]);
    return rows[0]?.at ?? null;
  },
  makeWait: async (until) => {
    await db.query('UPDATE person SET wait_until = $2 WHERE id = $1', [personId, until]);
  },
  succeed: async () => {
    await db.query('UPDATE person SET failed_attempts = 0, wait_until = NULL WHERE id = $1', [personId]);
  },
});

const byDevice = (db: DataSource, deviceId: string, personId: string): Tries => ({
  begin: async () => {
    const rows = await db.query<{ failed: number }[]>(
      `INSERT INTO pin_try AS t (site_id, device_id, person_id, failed)
       SELECT d.site_id, d.id, $2, 1 FROM device d WHERE d.id = $1
       ON CONFLICT (device_id, person_id) DO UPDATE SET failed = t.failed + 1
         WHERE t.wait_until IS NULL OR t.wait_until <= now() RETURNING failed`,
      [deviceId, personId],
    );
    return rows[0]?.failed ?? null;
  },
  waitUntil: async () => {
    const rows = await db.query<{ at: Date | null }[]>(
      'SELECT wait_until AS at FROM pin_try WHERE device_id = $1 AND person_id = $2',
      [deviceId, personId],
    );
    return rows[0]?.at ?? null;
  },
  makeWait: async (until) => {
    await db.query('UPDATE pin_try SET wait_until = $3 WHERE device_id = $1 AND person_id = $2', [
      deviceId,
      personId,
      until,
    ]);
  },
  succeed: async () => {
    await db.query('DELETE FROM pin_try WHERE device_id = $1 AND person_id = $2', [deviceId, personId]);
  },
});

/** @param deviceId the enrolled tablet that is typed at; null: none */
export const triesOf = (db: DataSource, personId: string, deviceId: string | null): Tries =>
  deviceId === null ? byPerson(db, personId) : byDevice(db, deviceId, personId);

const waitProblem = (until: Date | null): ProblemError => {
  const waitS = Math.max(1, Math.ceil(((until?.getTime() ?? 0) - Date.now()) / MS_PER_SECOND));
  return new ProblemError('pinWait', sentences.pinWait(waitS), { retryAfterS: waitS });
};

/**
 * One try at what somebody knows: from the fifth wrong one on, each costs a doubling wait.
 * @throws ProblemError pinWait, wrongPin
 */
export async function letTry(tries: Tries, knows: () => Promise<boolean>): Promise<void> {
  const failed = await tries.begin();
  if (failed === null) throw waitProblem(await tries.waitUntil());
  if (await knows()) {
    await tries.succeed();
    return;
  }
  const left = FREE_TRIES - failed;
  if (left > 0) throw new ProblemError('wrongPin', sentences.wrongPin(left));
  const waitS = Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** -left);
  const until = new Date(Date.now() + waitS * MS_PER_SECOND);
  await tries.makeWait(until);
  throw waitProblem(until);
}
