import { jobsOf, type OpeningBar } from './jobs.ts';
import type { PlanPerson, PlanTask } from './planProblem.ts';

/** The one way to make a plan's tasks and people in tests. */
export const task = (key: string, minutes: number, more: Partial<PlanTask> = {}): PlanTask => ({
  key,
  minutes,
  sdMinutes: 0,
  who: 'trained',
  needs: [],
  uses: [],
  fromMin: 0,
  heldBy: null,
  ...more,
});

export const after = (...keys: string[]): PlanTask['needs'] => keys.map((key) => ({ key, lagMin: 0, lagSdMin: 0 }));

export const person = (id: string, more: Partial<PlanPerson> = {}): PlanPerson => ({
  id,
  fromMin: 0,
  trained: true,
  head: false,
  mayNot: [],
  ...more,
});

/** Two machines with three and two groups, four grinders: the size of a real bar. */
export const glasshouse: OpeningBar = {
  machines: [
    { id: 'fern', groups: ['1', '2', '3'].map((id) => ({ id, buttons: 2 })) },
    { id: 'moss', groups: ['4', '5'].map((id) => ({ id, buttons: 2 })) },
  ],
  grinders: [
    { id: 'house', referenceGroupId: '1' },
    { id: 'guest', referenceGroupId: '2' },
    { id: 'decaf', referenceGroupId: '4' },
    { id: 'brew', referenceGroupId: '5' },
  ],
  milk: true,
  scale: true,
  provesDoses: false,
  byVolume: false,
  upkeepDue: false,
  left: [],
};

/** Its opening as a problem for the planner, with usual minutes and a warm-up of 20. */
export function glasshouseProblem(people: readonly PlanPerson[]) {
  const minutes: Record<string, number> = {
    dial: 5,
    firstDose: 1,
    hopper: 2,
    milk: 3,
    taste: 2,
    groupCheck: 2,
    signOff: 2,
  };
  const tasks = jobsOf(glasshouse).map((job) =>
    task(job.key, minutes[job.kind] ?? 1, {
      who: job.who,
      uses: job.uses,
      sdMinutes: 0.4,
      needs: job.needs.map((key) => ({ key, lagMin: key.startsWith('switchOn') ? 20 : 0, lagSdMin: 2 })),
    }),
  );
  return { tasks, people };
}
