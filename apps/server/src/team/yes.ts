import { MS_PER_MINUTE } from '@tempera/core/numbers';
import type { Session, yesSchema } from '@tempera/contract/team';
import type { DataSource } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import type { z } from 'zod';
import { problem } from '../kernel/problems.ts';
import { PersonEntity, YesEntity, type PersonRow } from './entities.ts';
import { checkPin } from './sessions.ts';

/** For what is being done now, not for the rest of the shift. */
const HOLDS_MS = 3 * MS_PER_MINUTE;

/**
 * A second person says yes, by their PIN and on the spot, to what the one who is signed in writes in the next minutes.
 * @throws ProblemError notFound, and all of a try at a PIN
 */
export async function giveYes(
  db: DataSource,
  { site, person }: Session,
  { personId, pin }: { personId: string; pin: string },
  deviceId: string | null,
): Promise<z.infer<typeof yesSchema>> {
  const isOurs = await db.getRepository(PersonEntity).existsBy({ id: personId, siteId: site.id });
  if (!isOurs) throw problem('notFound');
  await checkPin(db, personId, pin, deviceId);
  const until = new Date(Date.now() + HOLDS_MS);
  const id = uuidv7();
  await db.getRepository(YesEntity).insert({ id, siteId: site.id, personId, toPersonId: person.id, until });
  return { id, until: until.toISOString() };
}

/**
 * Who said yes to what this person writes; null: nobody, or too long ago.
 * @param atMs when it was written, by the house's clock
 */
export async function whoSaidYes(
  db: DataSource,
  { site, person }: Session,
  yesId: string,
  atMs: number,
): Promise<Pick<PersonRow, 'id' | 'role'> | null> {
  const yes = await db.getRepository(YesEntity).findOneBy({ id: yesId, siteId: site.id, toPersonId: person.id });
  if (!yes || yes.until.getTime() < atMs) return null;
  return db.getRepository(PersonEntity).findOneBy({ id: yes.personId });
}
