import type { Session, Welcome } from '@tempera/contract/team';
import type { Request } from 'express';
import type { DataSource } from 'typeorm';
import { deviceOf, keepsDevices } from './devices.ts';
import { PersonEntity, SiteEntity } from './entities.ts';

/** What a tablet may know before anyone signed in: the cafés and the names to choose from; whoever is signed in knows their own. */
export async function welcome(
  db: DataSource,
  req: Request,
  session: Session | null,
  demo: Welcome['demo'],
): Promise<Welcome> {
  const [sites, people] = await Promise.all([
    db.getRepository(SiteEntity).find({ order: { name: 'ASC' } }),
    db.getRepository(PersonEntity).find({ where: { retired: false }, order: { name: 'ASC' } }),
  ]);
  const device = await deviceOf(db, req);
  const enrolled = new Map<string, boolean>();
  for (const { id } of sites) enrolled.set(id, device?.siteId === id || !(await keepsDevices(db, id)));
  return {
    sites: sites.map(({ id, name, timeZone, dayStartsMin }) => ({
      id,
      name,
      timeZone,
      dayStartsMin,
      enrolled: enrolled.get(id) ?? false,
      people: people
        .filter((person) => person.siteId === id && (enrolled.get(id) || session?.site.id === id))
        .map(({ id: personId, name: who, role, pinHash }) => ({
          id: personId,
          name: who,
          role,
          hasPin: pinHash !== null,
        })),
    })),
    demo,
  };
}
