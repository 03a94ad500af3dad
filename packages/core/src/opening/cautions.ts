import type { JobKind } from '../facts/index.ts';

/** Where a job can hurt someone. Each has one line at its step, that a person may put away. */
export const dangers = ['scald', 'steam', 'burrs', 'detergent', 'mains', 'caffeine', 'milk'] as const;
export type Danger = (typeof dangers)[number];

const dangersOf: Record<JobKind, readonly Danger[]> = {
  water: ['mains'],
  switchOn: ['mains'],
  hot: ['mains'],
  scale: [],
  hopper: ['burrs'],
  rinse: ['scald'],
  doseTime: ['burrs'],
  dial: ['scald'],
  groupCheck: ['scald'],
  button: ['scald'],
  taste: ['caffeine'],
  milk: ['steam', 'milk'],
  signOff: [],
};

/** The dangers of a job, the sharpest first. @param detergent whether the groups were cleaned with it */
export function dangersAt(kind: JobKind, detergent: boolean): Danger[] {
  return [...(kind === 'rinse' && detergent ? (['detergent'] as const) : []), ...dangersOf[kind]];
}
