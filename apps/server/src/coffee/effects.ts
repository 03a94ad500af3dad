import { leftIn, takenOut, type FreezerStay } from '@tempera/core/coffee';
import { businessDay } from '@tempera/core/house';
import type { EntityManager } from 'typeorm';
import type { KeptStep, StepEffects } from '../kernel/room.ts';
import { changeSheet } from '../kernel/sheets.ts';
import { SiteEntity } from '../team/index.ts';
import { bagTable } from './tables.ts';

/** Changes a bag's stays in the freezer by the business day of a step. */
const changeStays =
  (changed: (stays: readonly FreezerStay[], day: string) => FreezerStay[]) =>
  async (tx: EntityManager, step: KeptStep<'thawed'>): Promise<void> => {
    const site = await tx.getRepository(SiteEntity).findOneByOrFail({ id: step.siteId });
    const day = businessDay(step.atMs, site.timeZone, site.dayStartsMin);
    await changeSheet(tx, bagTable, step.body.bagId, step, (bag) => ({ ...bag, freezes: changed(bag.freezes, day) }));
  };

/** What work changes on the sheets of bags. */
export const coffeeEffects: StepEffects = {
  thawed: { done: changeStays(takenOut), undone: changeStays(leftIn) },
};
