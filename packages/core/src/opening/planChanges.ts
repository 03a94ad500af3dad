import { MS_PER_MINUTE } from '../numbers/index.ts';
import type { JobState } from './openingState.ts';

/** What the last plan was made from, and what it promised. */
export interface PlanSeen {
  endAtMs: number;
  opensAtMs: number;
  people: readonly string[];
  jobs: readonly Pick<JobState, 'job' | 'standing' | 'notRight'>[];
}

/** Why a plan is another than before. */
export type ChangeCause =
  | { kind: 'opens' }
  | { kind: 'people' }
  | { kind: 'notRight'; key: string }
  | { kind: 'again'; key: string }
  | { kind: 'skipped'; key: string }
  | { kind: 'longer' }
  | { kind: 'sooner' };

export interface PlanChange {
  /** Minutes by which the bar is ready later (positive) or sooner. */
  byMin: number;
  cause: ChangeCause;
}

/** Less than this is rounding. */
const LEAST_MIN = 2;

/** What changed between two plans; null when nobody needs to be told. */
export function planChange(before: PlanSeen, after: PlanSeen): PlanChange | null {
  const byMin = Math.round((after.endAtMs - before.endAtMs) / MS_PER_MINUTE);
  const cause = causeOf(before, after);
  if (cause) return { byMin, cause };
  if (Math.abs(byMin) < LEAST_MIN) return null;
  return { byMin, cause: { kind: byMin > 0 ? 'longer' : 'sooner' } };
}

function causeOf(before: PlanSeen, after: PlanSeen): ChangeCause | null {
  if (before.opensAtMs !== after.opensAtMs) return { kind: 'opens' };
  if (before.people.join() !== after.people.join()) return { kind: 'people' };
  const was = new Map(before.jobs.map((state) => [state.job.key, state]));
  for (const { job, standing, notRight } of after.jobs) {
    const then = was.get(job.key);
    if (!then) continue;
    if (notRight !== null && notRight !== then.notRight) return { kind: 'notRight', key: job.key };
    if (then.standing === 'done' && standing !== 'done' && standing !== 'skipped')
      return { kind: 'again', key: job.key };
    if (then.standing !== 'skipped' && standing === 'skipped') return { kind: 'skipped', key: job.key };
  }
  return null;
}
