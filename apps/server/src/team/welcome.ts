import type { Session, Welcome } from '@tempera/contract/team';
import type { Request } from 'express';
import { In, type DataSource } from 'typeorm';
import { deviceOf, keepingDevices } from './devices.ts';
import { PersonEntity, SiteEntity } from './entities.ts';

/**
 * What a tablet may know before anyone signed in: the cafés and the names to choose from. A tablet of a house, and whoever is signed
 * in, ask for their own café; a stranger is told of all, and of the names where no tablet is enrolled yet.
 */
export async function welcome(
  db: DataSource,
  req: Request,
  session: Session | null,
  demo: Welcome['demo'],
): Promise<Welcome> {
  const device = await deviceOf(db, req);
  const ownId = device?.siteId ?? session?.site.id ?? null;
  const sites = await db.getRepository(SiteEntity).find({
    where: ownId === null ? {} : { id: ownId },
    order: { name: 'ASC' },
  });
  const closed = await keepingDevices(
    db,
    sites.map(({ id }) => id),
  );
  const isEnrolled = (id: string): boolean => device?.siteId === id || !closed.has(id);
  const named = sites.map(({ id }) => id).filter((id) => isEnrolled(id) || session?.site.id === id);
  const people = await db
    .getRepository(PersonEntity)
    .find({ where: { retired: false, siteId: In(named) }, order: { name: 'ASC' } });
  const ofSite = new Map<string, typeof people>();
  for (const person of people) ofSite.set(person.siteId, [...(ofSite.get(person.siteId) ?? []), person]);
  return {
    sites: sites.map(({ id, name, timeZone, dayStartsMin }) => ({
      id,
      name,
      timeZone,
      dayStartsMin,
      enrolled: isEnrolled(id),
      people: (ofSite.get(id) ?? []).map(({ id: personId, name: who, role, pinHash }) => ({
        id: personId,
        name: who,
        role,
        hasPin: pinHash !== null,
      })),
    })),
    demo,
  };
}
