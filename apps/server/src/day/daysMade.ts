import { grinderHistory, summariseDays, SUMMARY_VERSION, type DaySummary } from '@tempera/core/day';
import { standingFacts } from '@tempera/core/facts';
import { addDays, businessDay, daysBetween, momentOf } from '@tempera/core/house';
import type { Session } from '@tempera/contract/team';
import { MOST_SUMMARY_DAYS } from '@tempera/contract/day';
import { setImmediate } from 'node:timers/promises';
import type { DataSource } from 'typeorm';
import { recipeTargets } from '../house/index.ts';
import { houseAt, sureSeq } from '../journal/index.ts';
import { factsOfHistory } from './facts.ts';

/** So many days are made in one go, before others have their turn. */
const DAYS_AT_ONCE = 14;

type Site = Session['site'];

/** One making at a time for each grinder, in this process; what two processes make at once is the same. */
const making = new Map<string, Promise<void>>();

/** Days of a grinder from `fromDay` on, oldest first, each as its facts say by now. */
export async function daysOf(db: DataSource, site: Site, grinderId: string, fromDay: string): Promise<DaySummary[]> {
  const made =
    making.get(grinderId) ??
    makeDays(db, site, grinderId).finally(() => {
      making.delete(grinderId);
    });
  making.set(grinderId, made);
  await made;
  const rows = await db.query<{ summary: DaySummary }[]>(
    'SELECT summary FROM day_summary WHERE grinder_id = $1 AND day >= $2 ORDER BY day',
    [grinderId, fromDay],
  );
  return rows.map(({ summary }) => summary);
}

/** Makes the days anew that facts have reached since they were last made: shots that came late, and what corrects old ones. */
async function makeDays(db: DataSource, site: Site, grinderId: string): Promise<void> {
  const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, site.dayStartsMin);
  const madeWith = `${SUMMARY_VERSION} ${site.timeZone} ${site.dayStartsMin}`;
  // Before anything is read: what is committed after this is looked at again by the next read.
  const sure = await sureSeq(db, site.id);
  const [made] = await db.query<{ heardSeq: number; madeWith: string }[]>(
    'SELECT heard_seq AS "heardSeq", made_with AS "madeWith" FROM days_made WHERE grinder_id = $1',
    [grinderId],
  );
  const today = dayOf(Date.now());
  const oldest = addDays(today, 1 - MOST_SUMMARY_DAYS);
  const days =
    made?.madeWith === madeWith
      ? (await momentsSince(db, grinderId, made.heardSeq)).map(dayOf)
      : await allDays(db, grinderId, dayOf, oldest, today);
  const heardSeq = sure ?? made?.heardSeq ?? 0;
  for (const stretch of stretchesOf(days.filter((day) => day >= oldest))) {
    await makeStretch(db, site, grinderId, stretch, heardSeq, dayOf);
    await setImmediate();
  }
  if (days.length === 0 || sure === null) return;
  await db.query(
    `INSERT INTO days_made (grinder_id, site_id, heard_seq, made_with) VALUES ($1, $2, $3, $4)
     ON CONFLICT (grinder_id) DO UPDATE SET heard_seq = EXCLUDED.heard_seq, made_with = EXCLUDED.made_with
      WHERE days_made.heard_seq <= EXCLUDED.heard_seq`,
    [grinderId, site.id, sure, madeWith],
  );
}

/** When that happened which has come in since a place in the order, or which a correction since then is about; ms since the epoch. */
async function momentsSince(db: DataSource, grinderId: string, seq: number): Promise<number[]> {
  const rows = await db.query<{ at: Date }[]>(
    `SELECT ${houseAt('t')} AS at FROM fact t
      WHERE t.id = ANY (ARRAY(
        SELECT CASE WHEN f.kind = 'correction' THEN (f.body->>'factId')::uuid ELSE f.id END
          FROM fact f WHERE f.grinder_id = $1 AND f.seq > $2))`,
    [grinderId, seq],
  );
  return rows.map(({ at }) => at.getTime());
}

/** Every day from a grinder's first fact on. */
async function allDays(
  db: DataSource,
  grinderId: string,
  dayOf: (atMs: number) => string,
  oldest: string,
  today: string,
): Promise<string[]> {
  const [first] = await db.query<{ at: Date }[]>(
    `SELECT ${houseAt('f')} AS at FROM fact f WHERE f.grinder_id = $1 ORDER BY f.at LIMIT 1`,
    [grinderId],
  );
  if (!first) return [];
  const firstDay = dayOf(first.at.getTime());
  const from = firstDay > oldest ? firstDay : oldest;
  return Array.from({ length: Math.max(1, daysBetween(from, today) + 1) }, (_, i) => addDays(from, i));
}

/** Days in runs that follow one another, none longer than is made in one go. */
function stretchesOf(days: readonly string[]): string[][] {
  const stretches: string[][] = [];
  for (const day of [...new Set(days)].toSorted()) {
    const last = stretches.at(-1);
    const follows = last?.at(-1) === addDays(day, -1) && last.length < DAYS_AT_ONCE;
    if (last && follows) last.push(day);
    else stretches.push([day]);
  }
  return stretches;
}

async function makeStretch(
  db: DataSource,
  { id: siteId, timeZone, dayStartsMin }: Site,
  grinderId: string,
  stretch: readonly string[],
  heardSeq: number,
  dayOf: (atMs: number) => string,
): Promise<void> {
  const [first = '', last = ''] = [stretch[0], stretch.at(-1)];
  const [facts, recipes] = await Promise.all([
    factsOfHistory(db, siteId, grinderId, {
      fromMs: momentOf(first, dayStartsMin, timeZone),
      toMs: momentOf(addDays(last, 1), dayStartsMin, timeZone),
    }),
    recipeTargets(db, siteId),
  ]);
  const history = grinderHistory(standingFacts(facts), grinderId, (id) => recipes.get(id) ?? null, dayOf);
  const summaries = summariseDays(history, dayOf).filter(({ day }) => stretch.includes(day));
  // Whoever has heard more has the last word; a day of which nothing stands any more goes.
  await db.query(
    `WITH gone AS (
       DELETE FROM day_summary WHERE grinder_id = $1 AND day = ANY($2) AND NOT day = ANY($3) AND heard_seq <= $4)
     INSERT INTO day_summary (grinder_id, day, site_id, heard_seq, summary)
     SELECT $1, s->>'day', $5, $4, s FROM jsonb_array_elements($6::jsonb) AS s
     ON CONFLICT (grinder_id, day) DO UPDATE SET heard_seq = EXCLUDED.heard_seq, summary = EXCLUDED.summary
      WHERE day_summary.heard_seq <= EXCLUDED.heard_seq`,
    [grinderId, stretch, summaries.map(({ day }) => day), heardSeq, siteId, JSON.stringify(summaries)],
  );
}
