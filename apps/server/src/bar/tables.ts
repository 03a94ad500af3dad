import type { Place } from '@tempera/contract/bar';
import { freePlace, GRINDER_LABEL_CM, usualSize } from '@tempera/core/bar';
import type { EntityManager } from 'typeorm';
import { mustBeOurs, type SheetTable } from '../kernel/sheets.ts';
import { SiteEntity } from '../team/index.ts';
import { BasketEntity, CounterEntity, FixtureEntity, GrinderEntity, GroupEntity, MachineEntity } from './entities.ts';

/** Where a new piece may stand: the first free spot of its usual size. */
async function firstPlace(tx: EntityManager, siteId: string, kind: keyof typeof usualSize): Promise<Place> {
  const site = await tx.getRepository(SiteEntity).findOneByOrFail({ id: siteId });
  const standing: Place[] = [];
  for (const entity of [MachineEntity, GrinderEntity, FixtureEntity]) {
    const pieces = tx.getRepository<Place & { siteId: string; retired: boolean }>(entity);
    standing.push(...(await pieces.findBy({ siteId, retired: false })));
  }
  const counters = await tx.getRepository(CounterEntity).findBy({ siteId, retired: false });
  const room = { widthCm: site.roomWidthCm, depthCm: site.roomDepthCm };
  const taken = kind === 'counter' ? counters : standing;
  return freePlace(usualSize[kind], room, taken, counters, kind === 'grinder' ? GRINDER_LABEL_CM : 0);
}

export const machineTable: SheetTable<'machine'> = {
  kind: 'machine',
  entity: MachineEntity,
  atFirst: (tx, siteId) => firstPlace(tx, siteId, 'machine'),
};

export const groupTable: SheetTable<'group'> = {
  kind: 'group',
  entity: GroupEntity,
  check: async (tx, siteId, { machineId, basketId }) => {
    await mustBeOurs(tx, siteId, 'machine', machineId);
    await mustBeOurs(tx, siteId, 'basket', basketId);
  },
};

export const grinderTable: SheetTable<'grinder'> = {
  kind: 'grinder',
  entity: GrinderEntity,
  atFirst: (tx, siteId) => firstPlace(tx, siteId, 'grinder'),
};

export const basketTable: SheetTable<'basket'> = { kind: 'basket', entity: BasketEntity };

export const fixtureTable: SheetTable<'fixture'> = {
  kind: 'fixture',
  entity: FixtureEntity,
  atFirst: (tx, siteId, { kind }) => firstPlace(tx, siteId, kind),
};

export const counterTable: SheetTable<'counter'> = {
  kind: 'counter',
  entity: CounterEntity,
  atFirst: (tx, siteId) => firstPlace(tx, siteId, 'counter'),
};
