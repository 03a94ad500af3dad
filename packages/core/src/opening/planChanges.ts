import { MS_PER_MINUTE } from '../numbers/index.ts';
import type { JobState } from './openingState.ts';

/** What a plan was made from, and what it promised. */
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

/** Less than this changes nobody's morning. */
const LEAST_MIN = 5;

/**
 * What changed between the plan that was last told of and the newest one; null when nobody needs to be told: it moved by
 * less than five minutes, and the bar is not for that reason late.
 */
export function planChange(told: PlanSeen, newest: PlanSeen): PlanChange | null {
  const byMin = Math.round((newest.endAtMs - told.endAtMs) / MS_PER_MINUTE);
  const late = newest.endAtMs > newest.opensAtMs && told.endAtMs <= told.opensAtMs;
  if (Math.abs(byMin) < LEAST_MIN && !late) return null;
  return { byMin, cause: causeOf(told, newest) ?? { kind: byMin > 0 ? 'longer' : 'sooner' } };
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
