import type { DayTold, GrinderHistory } from '@tempera/contract/day';
import type { Session } from '@tempera/contract/team';
import { grinderHistory } from '@tempera/core/day';
import { standingFacts } from '@tempera/core/facts';
import { addDays, businessDay, momentOf } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { recipeTargets } from '../house/index.ts';
import { problem } from '../kernel/problems.ts';
import { daysOf } from './daysMade.ts';
import { factsOfHistory } from './facts.ts';

interface Asked {
  grinderId: string;
  days: number;
}

/**
 * A grinder over the last business days, as this person may see it.
 * @throws ProblemError notFound: no grinder of this café
 */
export async function historyOf(
  db: DataSource,
  { person, site }: Session,
  { grinderId, days }: Asked,
): Promise<GrinderHistory> {
  await grinderMustBeOurs(db, site.id, grinderId);
  const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, site.dayStartsMin);
  const fromMs = momentOf(addDays(dayOf(Date.now()), 1 - days), site.dayStartsMin, site.timeZone);
  const [facts, recipes] = await Promise.all([
    factsOfHistory(db, site.id, grinderId, { fromMs, toMs: null }),
    recipeTargets(db, site.id),
  ]);
  const { shots, split, ...rest } = grinderHistory(
    standingFacts(facts),
    grinderId,
    (id) => recipes.get(id) ?? null,
    dayOf,
  );
  const sees = (personId: string): boolean => person.role === 'head' || personId === person.id;
  return {
    ...rest,
    shots: shots.map((shot) => ({ ...shot, personId: sees(shot.personId) ? shot.personId : null })),
    split: split && { ...split, hands: split.hands.filter(({ personId }) => sees(personId)) },
  };
}

/**
 * A grinder's last business days in numbers, oldest first.
 * @throws ProblemError notFound: no grinder of this café
 */
export async function summariesOf(db: DataSource, { site }: Session, { grinderId, days }: Asked): Promise<DayTold[]> {
  await grinderMustBeOurs(db, site.id, grinderId);
  const today = businessDay(Date.now(), site.timeZone, site.dayStartsMin);
  return daysOf(db, site, grinderId, addDays(today, 1 - days));
}

async function grinderMustBeOurs(db: DataSource, siteId: string, grinderId: string): Promise<void> {
  const known = await db.query<object[]>('SELECT 1 FROM grinder WHERE id = $1 AND site_id = $2', [grinderId, siteId]);
  if (known.length === 0) throw problem('notFound');
}
