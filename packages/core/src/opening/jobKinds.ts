import type { JobKind, StepFact, StepOf } from '../facts/index.ts';
import type { NotRight } from './notRight.ts';
import { checkScale } from './scaleCheck.ts';

/** How long a job takes, minutes: the mean and one sd of a single morning. */
export interface Minutes {
  meanMin: number;
  sdMin: number;
}

/** Where a job can hurt someone. Each has one line at its step, that a person may put away. */
export const dangers = ['scald', 'steam', 'burrs', 'detergent', 'mains', 'caffeine', 'milk'] as const;
export type Danger = (typeof dangers)[number];

/** What is known of a kind of job. */
interface JobKindFacts {
  /** Before the house has a history of its own: one pair of practised hands, nothing going wrong. Null: told by its shots. */
  usual: Minutes | null;
  /** The sharpest first. */
  dangers: readonly Danger[];
}

export const jobKinds: Record<JobKind, JobKindFacts> = {
  water: { usual: { meanMin: 1, sdMin: 0.4 }, dangers: ['mains'] },
  switchOn: { usual: { meanMin: 1, sdMin: 0.3 }, dangers: ['mains'] },
  hot: { usual: { meanMin: 1, sdMin: 0.5 }, dangers: ['mains'] },
  scale: { usual: { meanMin: 1, sdMin: 0.4 }, dangers: [] },
  hopper: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: ['burrs'] },
  rinse: { usual: { meanMin: 1, sdMin: 0.4 }, dangers: ['scald'] },
  doseTime: { usual: { meanMin: 3, sdMin: 1 }, dangers: ['burrs'] },
  dial: { usual: null, dangers: ['scald'] },
  groupCheck: { usual: null, dangers: ['scald'] },
  button: { usual: { meanMin: 3, sdMin: 1 }, dangers: ['scald'] },
  taste: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: ['caffeine'] },
  milk: { usual: { meanMin: 3, sdMin: 1 }, dangers: ['steam', 'milk'] },
  signOff: { usual: { meanMin: 2, sdMin: 0.7 }, dangers: [] },
};

/** The steps that settle a kind of job, and what they say is not right. */
export const settlements: {
  [K in StepFact['body']['step']]?: {
    job: JobKind;
    station: (body: StepOf<K>) => string | null;
    says: (body: StepOf<K>) => NotRight | null;
  };
} = {
  water: {
    job: 'water',
    station: ({ machineId }) => machineId,
    says: ({ waterRuns, filterInDate }) => (!waterRuns ? 'noWater' : filterInDate ? null : 'filterOld'),
  },
  switchedOn: { job: 'switchOn', station: ({ machineId }) => machineId, says: () => null },
  hot: { job: 'hot', station: ({ machineId }) => machineId, says: () => null },
  scale: {
    job: 'scale',
    station: () => null,
    says: ({ knownG, shownG }) => (checkScale(knownG, shownG).trusted ? null : 'scaleOff'),
  },
  hopper: { job: 'hopper', station: ({ grinderId }) => grinderId, says: () => null },
  rinsed: { job: 'rinse', station: ({ groupId }) => groupId, says: () => null },
  doseTime: {
    job: 'doseTime',
    station: ({ grinderId }) => grinderId,
    says: ({ holds }) => (holds ? null : 'dosesScatter'),
  },
  groupChecked: {
    job: 'groupCheck',
    station: ({ groupId }) => groupId,
    says: ({ finding, foundId, groupId }) => {
      if (finding === 'unsure') return 'unsure';
      if (finding === 'grinder') return 'grinderOff';
      return finding === 'group' && foundId === groupId ? 'groupOff' : null;
    },
  },
  button: { job: 'button', station: ({ groupId }) => groupId, says: () => null },
  tasteSettled: { job: 'taste', station: ({ grinderId }) => grinderId, says: () => null },
  milk: { job: 'milk', station: () => null, says: () => null },
  signedOff: { job: 'signOff', station: () => null, says: () => null },
};
