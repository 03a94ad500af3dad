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
  const startOf = (day: string): number => momentOf(day, site.dayStartsMin, site.timeZone);
  const today = dayOf(Date.now());
  const askedMs = startOf(addDays(today, 1 - days));
  const crowdedMs = await momentBeforeNewest(db, grinderId, askedMs);
  const crowdedDay = crowdedMs === null ? null : dayOf(crowdedMs);
  // Whole days; today in any case.
  const cutAt = crowdedDay === null || crowdedDay >= today ? crowdedDay : addDays(crowdedDay, 1);
  const fromMs = cutAt === null ? askedMs : startOf(cutAt);
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
    cutAt,
    shots: shots.map((shot) => ({ ...shot, personId: sees(shot.personId) ? shot.personId : null })),
    split: split && { ...split, hands: split.hands.filter(({ personId }) => sees(personId)) },
  };
}

/** More points than these are a cloud on any screen, and their reading would hold up everybody else. */
const MOST_SHOTS_TOLD = 1_500;

/** When the shot was poured that the newest ones leave no room for, ms since the epoch; null: there is room for all since `fromMs`. */
async function momentBeforeNewest(db: DataSource, grinderId: string, fromMs: number): Promise<number | null> {
  const [row] = await db.query<{ at: Date }[]>(
    `SELECT at FROM fact WHERE grinder_id = $1 AND kind = 'shot' AND at >= $2 ORDER BY at DESC OFFSET ${MOST_SHOTS_TOLD} LIMIT 1`,
    [grinderId, new Date(fromMs)],
  );
  return row?.at.getTime() ?? null;
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
