import { MS_PER_WEEK } from '@tempera/core/numbers';
import type { OpeningHistory } from '@tempera/contract/opening';
import { jobHistory, runSpans, type RunSpan } from '@tempera/core/opening';
import { standingFacts, type StandingFacts, type StepFact } from '@tempera/core/facts';
import type { DataSource } from 'typeorm';
import { entryColumns } from '../journal/index.ts';

/** Older mornings say little about today's hands. */
const WEEKS = 6;
/** No run pours as many. */
const MOST_SHOTS_A_RUN = 500;

/** How long each kind of job took on the mornings of the last weeks. */
export async function openingHistory(db: DataSource, siteId: string, nowMs = Date.now()): Promise<OpeningHistory> {
  const steps = await stepsFrom(db, siteId, nowMs - WEEKS * MS_PER_WEEK);
  const history = jobHistory(steps, await shotsIn(db, siteId, runSpans(steps)));
  return { minutes: Object.fromEntries(Object.entries(history).map(([kind, minutes]) => [kind, [...minutes]])) };
}

/** All steps from a moment on, oldest first. */
async function stepsFrom(db: DataSource, siteId: string, fromMs: number): Promise<StandingFacts> {
  const rows = await db.query<StepFact[]>(
    `SELECT ${entryColumns('f')} FROM fact f WHERE f.site_id = $1 AND f.kind = 'step' AND f.at >= $2`,
    [siteId, new Date(fromMs)],
  );
  return standingFacts(rows);
}

/** Moments of the shots of these runs, by grinder: a day pours a hundred times as many. */
async function shotsIn(db: DataSource, siteId: string, spans: readonly RunSpan[]): Promise<Map<string, number[]>> {
  const rows = await db.query<{ grinderId: string; atMs: number[] }[]>(
    `SELECT f.grinder_id AS "grinderId", array_agg(extract(epoch FROM f.at)::float8 * 1000 ORDER BY f.at) AS "atMs"
       FROM unnest($2::timestamptz[], $3::timestamptz[]) AS run (began, signed)
      -- Each run is looked up for itself; without the limit the planner may read weeks and sort out.
      CROSS JOIN LATERAL (SELECT grinder_id, at FROM fact WHERE site_id = $1 AND kind = 'shot' AND at >= run.began
                             AND at <= run.signed ORDER BY at LIMIT ${MOST_SHOTS_A_RUN}) f
      GROUP BY f.grinder_id`,
    [siteId, spans.map(({ fromMs }) => new Date(fromMs)), spans.map(({ toMs }) => new Date(toMs))],
  );
  return new Map(rows.map(({ grinderId, atMs }) => [grinderId, atMs]));
}
