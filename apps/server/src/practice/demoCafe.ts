import type { DataSource, EntityManager } from 'typeorm';
import { CounterEntity, FixtureEntity, GrinderEntity, GroupEntity, MachineEntity } from '../bar/index.ts';
import { PolicyVersionEntity, RecipeVersionEntity } from '../house/index.ts';
import { hashPin, PersonEntity, SiteEntity } from '../team/index.ts';
import { counters, demoId, fixtures, grinders, machines, people, policy, recipes, site } from './demoBar.ts';
import { loadHistory } from './demoHistory.ts';

/** Loads the demo café into an empty database; does nothing where it already is. */
export async function loadDemoCafe(db: DataSource, now = new Date()): Promise<void> {
  if (await db.getRepository(SiteEntity).existsBy({ id: site.id })) return;
  const pinHashes = await Promise.all(people.map(({ pin }) => hashPin(pin)));
  await db.transaction(async (tx) => {
    await tx.insert(SiteEntity, site);
    await tx.insert(
      PersonEntity,
      people.map(({ name, role }, i) => ({
        id: demoId(`person ${name}`),
        siteId: site.id,
        name,
        role,
        pinHash: pinHashes[i] ?? '',
        failedAttempts: 0,
        waitUntil: null,
      })),
    );
    await tx.insert(RecipeVersionEntity, recipes);
    await tx.insert(PolicyVersionEntity, policy);
    await loadBar(tx);
    await loadHistory(tx, now);
  });
}

async function loadBar(tx: EntityManager): Promise<void> {
  const place = { siteId: site.id, depthCm: 52 };
  await tx.insert(CounterEntity, counters);
  await tx.insert(GrinderEntity, grinders);
  await tx.insert(
    MachineEntity,
    machines.map(({ name, xCm, yCm, widthCm }) => ({
      id: demoId(`machine ${name}`),
      name,
      xCm,
      yCm,
      widthCm,
      ...place,
    })),
  );
  await tx.insert(
    GroupEntity,
    machines.flatMap(({ name, groups }) =>
      groups.map((group, i) => ({
        id: demoId(`group ${group}`),
        siteId: site.id,
        machineId: demoId(`machine ${name}`),
        name: `Group ${group}`,
        position: i + 1,
      })),
    ),
  );
  await tx.insert(
    FixtureEntity,
    fixtures.map((fixture) => ({ id: demoId(fixture.name), siteId: site.id, ...fixture })),
  );
}
