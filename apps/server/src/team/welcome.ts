import type { Welcome } from '@tempera/contract/team';
import type { DataSource } from 'typeorm';
import { PersonEntity, SiteEntity } from './entities.ts';

/** What a tablet may know before anyone signed in: the cafés and the names to choose from. */
export async function welcome(db: DataSource, demo: Welcome['demo']): Promise<Welcome> {
  const [sites, people] = await Promise.all([
    db.getRepository(SiteEntity).find({ order: { name: 'ASC' } }),
    db.getRepository(PersonEntity).find({ where: { retired: false }, order: { name: 'ASC' } }),
  ]);
  return {
    sites: sites.map(({ id, name, timeZone, dayStartsMin }) => ({
      id,
      name,
      timeZone,
      dayStartsMin,
      people: people
        .filter((person) => person.siteId === id)
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
