import type { NewCafe, Session } from '@tempera/contract/team';
import { usualUnits, type Units } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { problem } from '../kernel/problems.ts';
import { PersonEntity, SiteEntity } from './entities.ts';
import { hashPin, signIn } from './service.ts';

/** A first room to put pieces into; the plan's page makes it as large as it is. */
const FIRST_ROOM = { roomWidthCm: 420, roomDepthCm: 200 };
/** Any number will do, as long as all who set up use the same. */
const SET_UP_LOCK = 7_316_402;

/**
 * Sets up the first café of a database, with its head barista, who is signed in at once. The same sent twice is answered
 * as done.
 * @throws ProblemError alreadySetUp when somebody was faster
 */
export async function setUpCafe(
  db: DataSource,
  { id, cafe, head }: NewCafe,
): Promise<{ token: string; session: Session }> {
  const pinHash = await hashPin(head.pin);
  await db.transaction(async (tx) => {
    await tx.query('SELECT pg_advisory_xact_lock($1)', [SET_UP_LOCK]);
    if (await tx.getRepository(SiteEntity).existsBy({ id })) return;
    if ((await tx.getRepository(SiteEntity).count()) > 0) throw problem('alreadySetUp');
    await tx.insert(SiteEntity, {
      id,
      ...cafe,
      ...FIRST_ROOM,
      planRevision: 1,
      foundedAt: new Date(),
      revision: 1,
      retired: false,
    });
    await tx.insert(PersonEntity, {
      id: head.id,
      siteId: id,
      name: head.name,
      role: 'head',
      pinHash,
      failedAttempts: 0,
      waitUntil: null,
      units: usualUnits,
    });
  });
  return signIn(db, head.id, head.pin);
}

/** What a person reads and types in from now on. */
export async function changeUnits(db: DataSource, session: Session, units: Units): Promise<Session> {
  await db.getRepository(PersonEntity).update({ id: session.person.id }, { units });
  return { ...session, units };
}
