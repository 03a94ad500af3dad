import type { NewEntry, RecordedEntry } from '@tempera/contract/journal';
import { actOf, goesByName, rights } from '@tempera/contract/rights';
import type { Role } from '@tempera/contract/team';
import type { DataSource } from 'typeorm';
import type { StepEffects } from '../kernel/room.ts';
import { problem } from '../kernel/problems.ts';
import { hasEffect, takeEffect } from './effects.ts';
import { FactEntity } from './entities.ts';
import { noteTold } from './unconfirmed.ts';
import { keep } from './keep.ts';
import { sameFact, withoutTrace } from './service.ts';

/** The tablet that tells an entry. */
interface Teller {
  id: string;
  siteId: string;
}

/**
 * Keeps an entry that a tablet of the house tells by the name it carries alone: it counts at once, and stands as unconfirmed until the
 * same entry comes under its author's own session.
 * @throws ProblemError wrongSite, waitsForPin, retiredPerson, unknownStation, unknownRecipe, unknownFact, idTaken
 */
export async function recordByName(
  db: DataSource,
  tablet: Teller,
  fact: NewEntry,
  effects: StepEffects,
): Promise<{ fact: RecordedEntry; created: boolean }> {
  if (fact.siteId !== tablet.siteId) throw problem('wrongSite');
  if (!goesByName(fact) || !(await mayWriteAlone(db, fact))) throw problem('waitsForPin');
  return db.transaction(async (tx) => {
    const written = await keep(tx, { fact, approvedBy: null });
    if (written) {
      if (hasEffect(effects, fact)) await takeEffect(tx, effects, written);
      await noteTold(tx, fact, tablet.id);
      return { fact: withoutTrace(written), created: true };
    }
    const kept = await tx.getRepository(FactEntity).findOneByOrFail({ id: fact.id });
    if (!sameFact(kept, fact)) throw problem('idTaken');
    return { fact: withoutTrace(kept), created: false };
  });
}

/** Whether whoever is named is of the house, and does such work. @throws ProblemError retiredPerson */
async function mayWriteAlone(db: DataSource, fact: NewEntry): Promise<boolean> {
  const [person] = await db.query<{ role: Role; retired: boolean }[]>(
    'SELECT role, retired FROM person WHERE id = $1 AND site_id = $2',
    [fact.personId, fact.siteId],
  );
  if (!person || person.retired) throw problem('retiredPerson');
  const act = actOf(fact);
  return act !== null && rights[act].write.includes(person.role);
}
