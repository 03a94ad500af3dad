import { createHash, timingSafeEqual } from 'node:crypto';
import type { NewCafe, Session } from '@tempera/contract/team';
import { unitSchools, type Units } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { problem } from '../kernel/problems.ts';
import { PersonEntity, SiteEntity } from './entities.ts';
import { hashPin, isCommonPin } from './pin.ts';
import { signInByPin } from './sessions.ts';

/** A first room to put pieces into; the plan's page makes it as large as it is. */
const FIRST_ROOM = { roomWidthCm: 420, roomDepthCm: 200 };
/** Any number will do, as long as all who set up use the same. */
const SET_UP_LOCK = 7_316_402;

/**
 * Sets up the first café of a database, with its head barista, who is signed in at once. The same sent twice is answered
 * as done.
 * @param setUpCode what whoever started the server can read there; null: there is a café already
 * @param enrol makes where it is set up the first device of the house: names and PINs are nobody else's from the beginning
 * @throws ProblemError wrongCode, commonPin; alreadySetUp when somebody was faster
 */
export async function setUpCafe(
  db: DataSource,
  { id, code, cafe, head }: NewCafe,
  setUpCode: string | null,
  enrol: (here: { siteId: string; personId: string }) => Promise<string>,
): Promise<{ token: string; session: Session }> {
  if (setUpCode === null) throw problem('alreadySetUp');
  if (!sameCode(code, setUpCode)) throw problem('wrongCode');
  if (isCommonPin(head.pin)) throw problem('commonPin');
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
      revision: 1,
      retired: false,
      failedAttempts: 0,
      waitUntil: null,
      units: unitSchools[cafe.unitSchool],
      signOffs: [],
    });
  });
  return signInByPin(db, head.id, head.pin, await enrol({ siteId: id, personId: head.id }));
}

/** Whether a café is set up here. */
export const hasCafe = (db: DataSource): Promise<boolean> => db.getRepository(SiteEntity).exists();

/** As somebody reads it off a screen, with or without its space; compared in a time that tells nothing. */
function sameCode(typed: string, wanted: string): boolean {
  const digest = (text: string): Buffer => createHash('sha256').update(text.replaceAll(/\s/g, '')).digest();
  return timingSafeEqual(digest(typed), digest(wanted));
}

/** What a person reads and types in from now on. */
export async function changeUnits(db: DataSource, session: Session, units: Units): Promise<Session> {
  await db.getRepository(PersonEntity).update({ id: session.person.id }, { units });
  return { ...session, units };
}
