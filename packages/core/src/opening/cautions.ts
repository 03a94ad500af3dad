import type { JobKind } from '../facts/index.ts';
import { jobKinds, type Danger } from './jobKinds.ts';

/** The dangers of a job, the sharpest first. @param detergent whether the groups were cleaned with it */
export function dangersAt(kind: JobKind, detergent: boolean): Danger[] {
  return [...(kind === 'rinse' && detergent ? (['detergent'] as const) : []), ...jobKinds[kind].dangers];
}
