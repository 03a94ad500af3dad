import { isDeepStrictEqual } from 'node:util';
import { unitSchools } from '@tempera/core/house';
import { MS_PER_HOUR } from '@tempera/core/numbers';
import type { Session } from '@tempera/contract/team';
import type { DataSource, EntityManager } from 'typeorm';
import type { z } from 'zod';
import type {
  accessSchema,
  firstPinSchema,
  handedCodeSchema,
  newPasswordSchema,
  signInAwaySchema,
} from '@tempera/contract/team';
import { sentences } from '@tempera/contract/sentences';
import { problem, ProblemError } from '../kernel/problems.ts';
import type { SheetTable, SheetWriting } from '../kernel/sheets.ts';
import { PersonEntity, SiteEntity, type PersonRow } from './entities.ts';
import { forgetPasskeys } from './passkeys.ts';
import { drawCode, hashPin, isCommonPin, isPin } from './pin.ts';
import { checkPin, endSessions, personAway, signIn, signInByPassword } from './sessions.ts';

/** A code is handed over at the bar; it waits for the next shift at most. */
const CODE_HOURS = 48;

/** People, kept like any other sheet. */
export const personTable: SheetTable<'person'> = {
  kind: 'person',
  entity: PersonEntity,
  check: async (tx, siteId, { role, signOffs }, writing) => {
    const before = await tx.getRepository(PersonEntity).findOneBy({ id: writing.sheetId, siteId });
    headsAreMadeByHeads(before, role, writing);
    headsSignOff(before, signOffs, writing);
    if (before?.role === 'head' && !before.retired && (role !== 'head' || writing.retired)) {
      await anotherHeadStays(tx, siteId, before.id);
    }
    const goes = before !== null && !before.retired && writing.retired;
    if (goes) await endSessions(tx, { personId: before.id });
  },
  // Whoever is new reads as the house writes, until they choose otherwise.
  atFirst: async (tx, siteId) => {
    const { unitSchool } = await tx.getRepository(SiteEntity).findOneByOrFail({ id: siteId });
    return { units: unitSchools[unitSchool] };
  },
};

/** The office keeps the list; who is head is the heads' own business. @throws ProblemError headOnly */
function headsAreMadeByHeads(before: PersonRow | null, role: string, { session }: SheetWriting): void {
  if (session.person.role === 'head') return;
  if (role === 'head' || before?.role === 'head') throw problem('headOnly');
}

/** Who may work alone is a head's word. @throws ProblemError needsRole */
function headsSignOff(before: PersonRow | null, signOffs: PersonRow['signOffs'], { session }: SheetWriting): void {
  if (session.person.role === 'head' || isDeepStrictEqual(before?.signOffs ?? [], signOffs)) return;
  throw new ProblemError('needsRole', sentences.headSignsOff);
}

/** @throws ProblemError lastHead */
async function anotherHeadStays(tx: EntityManager, siteId: string, personId: string): Promise<void> {
  // One at a time: of two heads who retire each other at once, one stays.
  const heads = await tx.getRepository(PersonEntity).find({
    where: { siteId, role: 'head', retired: false },
    // In one order, or two would wait for each other.
    order: { id: 'ASC' },
    lock: { mode: 'pessimistic_write' },
  });
  if (heads.every(({ id }) => id === personId)) throw problem('lastHead');
}

/** Who has a PIN, and until when a code would do. */
export async function access(db: DataSource, siteId: string): Promise<z.infer<typeof accessSchema>> {
  const people = await db.getRepository(PersonEntity).find({ where: { siteId }, order: { id: 'ASC' } });
  return {
    people: people.map(({ id, pinHash, codeHash, codeUntil }) => ({
      id,
      hasPin: pinHash !== null,
      codeUntil: codeHash !== null && codeUntil && codeUntil.getTime() > Date.now() ? codeUntil.toISOString() : null,
    })),
  };
}

/**
 * A one-time code for somebody of the house, who sets a PIN by it; what they had (PIN, password, passkeys) is void, and whoever is signed in as them is
 * not any more.
 * @throws ProblemError notFound, headOnly, retiredPerson
 */
export async function handCode(
  db: DataSource,
  { site, person }: Session,
  personId: string,
): Promise<z.infer<typeof handedCodeSchema>> {
  const target = await db.getRepository(PersonEntity).findOneBy({ id: personId, siteId: site.id });
  if (!target) throw problem('notFound');
  if (target.role === 'head' && person.role !== 'head') throw problem('headOnly');
  if (target.id === person.id) throw new ProblemError('invalid', sentences.ownPin);
  if (target.retired) throw problem('retiredPerson');
  const code = drawCode();
  const codeUntil = new Date(Date.now() + CODE_HOURS * MS_PER_HOUR);
  const codeHash = await hashPin(code);
  await db.transaction(async (tx) => {
    const fresh = { pinHash: null, passwordHash: null, codeHash, codeUntil, failedAttempts: 0, waitUntil: null };
    await tx.getRepository(PersonEntity).update({ id: personId }, fresh);
    await forgetPasskeys(tx, personId);
    await endSessions(tx, { personId });
  });
  return { code, until: codeUntil.toISOString() };
}

/**
 * Sets a first PIN by a code, which is used up, and signs in.
 * @throws ProblemError commonPin, wrongCode, pinWait, retiredPerson
 */
export async function setFirstPin(
  db: DataSource,
  { personId, code, pin }: z.infer<typeof firstPinSchema>,
  deviceId: string | null,
): Promise<{ token: string; session: Session }> {
  if (isCommonPin(pin)) throw problem('commonPin');
  return signIn(db, personId, deviceId, async ({ codeHash, codeUntil }) => {
    const stillHolds = codeHash !== null && codeUntil !== null && codeUntil.getTime() > Date.now();
    if (!stillHolds || !(await isPin(codeHash, code))) return false;
    const pinHash = await hashPin(pin);
    // Used up by whoever is first.
    const used = await db
      .getRepository(PersonEntity)
      .update({ id: personId, codeHash }, { pinHash, codeHash: null, codeUntil: null });
    return used.affected === 1;
  });
}

/** Another PIN of one's own; whoever else is signed in with the old one is not any more. @throws ProblemError commonPin, wrongPin, pinWait */
export async function changePin(
  db: DataSource,
  session: Session,
  token: string,
  { pin, newPin }: { pin: string; newPin: string },
  deviceId: string | null,
): Promise<void> {
  if (isCommonPin(newPin)) throw problem('commonPin');
  await checkPin(db, session.person.id, pin, deviceId);
  const pinHash = await hashPin(newPin);
  await db.transaction(async (tx) => {
    await tx.getRepository(PersonEntity).update({ id: session.person.id }, { pinHash });
    await endSessions(tx, { personId: session.person.id, but: token });
  });
}

/**
 * A long password, by which a head or the office comes in from where no tablet is enrolled; it asks for the PIN once more.
 * @throws ProblemError headOrOffice, and all of a try at a PIN
 */
export async function setPassword(
  db: DataSource,
  { person }: Session,
  { pin, password }: z.infer<typeof newPasswordSchema>,
  deviceId: string | null,
): Promise<void> {
  if (person.role !== 'head' && person.role !== 'office') throw problem('headOrOffice');
  await checkPin(db, person.id, pin, deviceId);
  await db.getRepository(PersonEntity).update({ id: person.id }, { passwordHash: await hashPin(password) });
}

/** Signs a head or the office in by name and password. @throws ProblemError wrongPassword, pinWait */
export async function signInAway(
  db: DataSource,
  { name, password }: z.infer<typeof signInAwaySchema>,
): Promise<{ token: string; session: Session }> {
  const person = await personAway(db, name);
  // Whoever is not known takes as long as whoever is: nobody finds out names by the clock.
  if (!person) {
    await hashPin(password);
    throw problem('wrongPassword');
  }
  return signInByPassword(db, person.id, password);
}
