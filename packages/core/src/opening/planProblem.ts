import type { Who } from './jobs.ts';

/** Minutes are whole: nobody at a bar plans finer. */
export interface PlanTask {
  key: string;
  /** How long it keeps people and stations, whole minutes from 1. */
  minutes: number;
  /** One sd of that, for the chance to be ready. */
  sdMinutes: number;
  who: Who;
  /** Tasks that must be over, and how many minutes earlier at least (a machine warms up by itself). */
  needs: { key: string; lagMin: number; lagSdMin: number }[];
  uses: string[];
  /** Not before this minute from now; what is under way or fixed stands at 0. */
  fromMin: number;
  /** Somebody has it in hand: it begins now, with this person. */
  heldBy: string | null;
}

export interface PlanPerson {
  id: string;
  /** Tasks that they are not signed off for. */
  mayNot: readonly string[];
  /** Minutes from now until they are in. */
  fromMin: number;
  trained: boolean;
  head: boolean;
}

/** What is left to do, by whom. A problem without anybody who may do a task cannot be planned. */
export interface PlanProblem {
  tasks: readonly PlanTask[];
  people: readonly PlanPerson[];
  /** Stations of which there are several, like scales; every other is one. */
  several?: Readonly<Record<string, number>>;
}

/** How many tasks a station serves at once. */
export const capacityOf = ({ several }: PlanProblem, station: string): number => several?.[station] ?? 1;

export interface PlannedTask {
  key: string;
  startMin: number;
  endMin: number;
  personId: string;
}

export interface Plan {
  /** In order of their start. */
  tasks: PlannedTask[];
  /** When all is over, minutes from now. */
  endMin: number;
}

/** What somebody may do. */
export type Rights = Pick<PlanPerson, 'trained' | 'head' | 'mayNot'>;

/**
 * Rights of a role: nobody works the machines untrained, and only a head barista signs.
 * @param signedOff whether the house has signed them off for an opening, where it keeps such sign-offs
 * @param mayNot keys of the jobs that they are not signed off for
 */
export const rightsOf = (role: string, signedOff = true, mayNot: readonly string[] = []): Rights => ({
  mayNot,
  trained: role === 'head' || (role === 'barista' && signedOff),
  head: role === 'head',
});

/** Whether somebody with these rights may do a job. */
export const may = (person: Rights, { key, who }: { key: string; who: Who }): boolean =>
  !person.mayNot.includes(key) &&
  (who === 'anyone' || (who === 'trained' && person.trained) || (who === 'head' && person.head));

/** The tasks for which nobody is in at all; a plan needs none of them. */
export function nobodyFor({ tasks, people }: PlanProblem): string[] {
  return tasks.filter((task) => !people.some((person) => may(person, task))).map(({ key }) => key);
}

/** For each task, minutes from its start to the end of everything that hangs on it: the longest chain after it. */
export function tailsOf(tasks: readonly PlanTask[]): Map<string, number> {
  const after = new Map<string, { task: PlanTask; lagMin: number }[]>();
  for (const task of tasks)
    for (const { key, lagMin } of task.needs) after.set(key, [...(after.get(key) ?? []), { task, lagMin }]);
  const tails = new Map<string, number>();
  const tail = (task: PlanTask): number => {
    const known = tails.get(task.key);
    if (known !== undefined) return known;
    const rest = (after.get(task.key) ?? []).map((next) => next.lagMin + tail(next.task));
    const found = task.minutes + Math.max(0, ...rest);
    tails.set(task.key, found);
    return found;
  };
  for (const task of tasks) tail(task);
  return tails;
}

/** The earliest minute at which each task could begin if there were people and stations without end. */
export function headsOf({ tasks, people }: PlanProblem): Map<string, number> {
  const byKey = new Map(tasks.map((task) => [task.key, task]));
  const heads = new Map<string, number>();
  const head = (task: PlanTask): number => {
    const known = heads.get(task.key);
    if (known !== undefined) return known;
    const inFrom = Math.min(...people.filter((person) => may(person, task)).map(({ fromMin }) => fromMin));
    const before = task.needs.map(({ key, lagMin }) => {
      const need = byKey.get(key);
      return need ? head(need) + need.minutes + lagMin : lagMin;
    });
    const found = task.heldBy === null ? Math.max(0, task.fromMin, inFrom, ...before) : 0;
    heads.set(task.key, found);
    return found;
  };
  for (const task of tasks) head(task);
  return heads;
}
