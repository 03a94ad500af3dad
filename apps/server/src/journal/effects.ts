import type { NewEntry } from '@tempera/contract/journal';
import type { StepKind } from '@tempera/core/facts';
import type { EntityManager } from 'typeorm';
import type { KeptStep, StepEffect, StepEffects } from '../kernel/room.ts';
import { FactEntity, type FactRow } from './entities.ts';

const effectOf = (effects: StepEffects, step: StepKind): StepEffect | undefined =>
  effects[step] as StepEffect | undefined;

/** Whether keeping this entry changes something else too. */
export const hasEffect = (effects: StepEffects, entry: NewEntry): boolean =>
  entry.kind === 'step' && (entry.body.step === 'takenBack' || effectOf(effects, entry.body.step) !== undefined);

/** Does what a step that was just kept changes besides, or undoes it where the step takes another back. */
export async function takeEffect(tx: EntityManager, effects: StepEffects, kept: FactRow): Promise<void> {
  const { personId } = kept;
  const { body } = stepOf(kept);
  if (body.step !== 'takenBack') {
    await effectOf(effects, body.step)?.done(tx, stepOf(kept));
    return;
  }
  const target = body.takesBack === null ? null : await tx.getRepository(FactEntity).findOneBy({ id: body.takesBack });
  if (target?.kind !== 'step') return;
  const undone = stepOf(target);
  await effectOf(effects, undone.body.step)?.undone(tx, { ...undone, personId });
}

const stepOf = ({ siteId, personId, at, body }: FactRow): KeptStep => ({
  siteId,
  personId,
  atMs: at.getTime(),
  body: body as KeptStep['body'],
});
