import type { DoorEvent } from '@tempera/contract/changes';
import type { Request } from 'express';
import type { DataSource } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { ProblemError } from '../kernel/problems.ts';

/** Notes what happened at the door to a person: who did it, and from where. Nobody is kept out where a note fails to be of a person. */
export async function noteDoor(
  db: DataSource,
  req: Request,
  what: DoorEvent,
  { aboutId, byId }: { aboutId: string; byId: string | null },
): Promise<void> {
  await db.query(
    `INSERT INTO audit (id, site_id, what, about_id, by_id, address)
     SELECT $1, p.site_id, $2, p.id, $4, $5 FROM person p
      WHERE p.id = $3 AND ($2 <> 'lockedOut' OR NOT EXISTS (
        SELECT 1 FROM audit a WHERE a.site_id = p.site_id AND a.about_id = p.id AND a.what = 'lockedOut'
                                AND a.at > now() - interval '1 minute'))`,
    // Whoever goes on guessing while they wait does not fill the record.
    [uuidv7(), what, aboutId, byId, req.ip ?? ''],
  );
}

/** Lets somebody in by what `enter` asks of them, and notes it, or that they failed. */
export async function throughTheDoor<T>(
  db: DataSource,
  req: Request,
  personId: string,
  what: DoorEvent,
  enter: () => Promise<T>,
): Promise<T> {
  try {
    const entered = await enter();
    await noteDoor(db, req, what, { aboutId: personId, byId: personId });
    return entered;
  } catch (error) {
    const failed = error instanceof ProblemError && FAILURES[error.code];
    if (failed) await noteDoor(db, req, failed, { aboutId: personId, byId: null });
    throw error;
  }
}

const FAILURES: Partial<Record<string, DoorEvent>> = {
  wrongPin: 'wrongPin',
  pinWait: 'lockedOut',
  wrongCode: 'wrongPin',
  wrongPassword: 'wrongPin',
  wrongPasskey: 'wrongPin',
};
