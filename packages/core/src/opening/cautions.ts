import type { JobKind } from '../facts/index.ts';
import { jobFacts, type Danger } from './jobs.ts';

/** The dangers of a job, the sharpest first. @param detergent whether the groups were cleaned with it */
export function dangersAt(kind: JobKind, detergent: boolean): Danger[] {
  return [...(kind === 'rinse' && detergent ? (['detergent'] as const) : []), ...jobFacts[kind].dangers];
}
