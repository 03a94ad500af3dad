import type { GrinderHistory } from '@tempera/contract/day';
import type { Session } from '@tempera/contract/team';
import { grinderHistory } from '@tempera/core/day';
import { standingFacts, type Entry } from '@tempera/core/facts';
import { addDays, businessDay, momentOf } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { recipeTargets } from '../house/index.ts';
import { problem } from '../kernel/problems.ts';

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
  const known = await db.query<object[]>('SELECT 1 FROM grinder WHERE id = $1 AND site_id = $2', [grinderId, site.id]);
  if (known.length === 0) throw problem('notFound');
  const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, site.dayStartsMin);
  const fromMs = momentOf(addDays(dayOf(Date.now()), 1 - days), site.dayStartsMin, site.timeZone);
  const [facts, recipes] = await Promise.all([
    factsOfHistory(db, site.id, grinderId, fromMs),
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

/** Shots, moves and bags of one grinder, what happened in service, and what corrects them; without traces. */
async function factsOfHistory(db: DataSource, siteId: string, grinderId: string, fromMs: number): Promise<Entry[]> {
  const rows = await db.query<(Omit<Entry, 'at'> & { at: Date })[]>(
    `SELECT id, kind, LEAST(at, received_at) AS at, person_id AS "personId", grinder_id AS "grinderId",
            group_id AS "groupId", body - 'trace' AS body
       FROM fact
      WHERE site_id = $1 AND at >= $3
        AND ((grinder_id = $2 AND kind IN ('shot', 'collarMove', 'newBag', 'correction'))
             OR (kind = 'step' AND body->>'step' IN ('happened', 'takenBack')))`,
    [siteId, grinderId, new Date(fromMs)],
  );
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }) as Entry);
}
