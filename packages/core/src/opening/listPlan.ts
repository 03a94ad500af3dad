import {
  capacityOf,
  may,
  tailsOf,
  type Plan,
  type PlanPerson,
  type PlannedTask,
  type PlanProblem,
  type PlanTask,
} from './planProblem.ts';

/** Busy stretches of a person or a station, in order of their start. */
type Busy = { from: number; to: number }[];

/** The first minute from `from` on at which nothing in `busy` overlaps `minutes`. */
function freeFrom(busy: Busy, from: number, minutes: number): number {
  let at = from;
  for (const stretch of busy) {
    if (stretch.from >= at + minutes) break;
    if (stretch.to > at) at = stretch.to;
  }
  return at;
}

/** The same for several at once. */
function freeInAll(all: readonly Busy[], from: number, minutes: number): number {
  let at = from;
  for (;;) {
    const next = all.reduce((latest, busy) => freeFrom(busy, latest, minutes), at);
    if (next === at) return at;
    at = next;
  }
}

function take(busy: Busy, from: number, to: number): void {
  const place = busy.findIndex((stretch) => stretch.from > from);
  busy.splice(place < 0 ? busy.length : place, 0, { from, to });
}

/**
 * Builds a plan task by task, each as early as its gates, its stations and some person allow, the task with the highest
 * rank first (serial schedule generation: every plan so made is feasible, and the shortest one is among them).
 * @param rank of a task; held ones come first in any case
 */
export function planBy(problem: PlanProblem, rank: (task: PlanTask) => number): Plan {
  const people = new Map<string, Busy>(problem.people.map(({ id, fromMin }) => [id, [{ from: -1, to: fromMin }]]));
  const stations = new Map<string, Busy[]>();
  for (const station of new Set(problem.tasks.flatMap(({ uses }) => uses)))
    stations.set(
      station,
      Array.from({ length: capacityOf(problem, station) }, () => []),
    );
  const ends = new Map<string, number>();
  const lastOf = new Map<string, string>();
  const known = new Set(problem.tasks.map(({ key }) => key));
  const planned: PlannedTask[] = [];
  const order = problem.tasks
    .map((task) => ({ task, rank: task.heldBy === null ? rank(task) : Infinity }))
    .sort((a, b) => b.rank - a.rank);
  while (order.length > 0) {
    const at = order.findIndex(({ task }) => task.needs.every(({ key }) => ends.has(key) || !known.has(key)));
    const [next] = order.splice(at, 1);
    if (at < 0 || !next) throw new RangeError('planBy: the gates of these tasks form a circle');
    const { task } = next;
    const open = Math.max(
      0,
      task.heldBy === null ? task.fromMin : 0,
      ...(task.heldBy === null ? task.needs.map(({ key, lagMin }) => (ends.get(key) ?? 0) + lagMin) : []),
    );
    const { person, startMin, taken } = firstChance(task, open, problem.people, people, stations, lastOf);
    const endMin = startMin + task.minutes;
    take(people.get(person) ?? [], startMin, endMin);
    for (const busy of taken) take(busy, startMin, endMin);
    for (const station of task.uses) lastOf.set(station, person);
    ends.set(task.key, endMin);
    planned.push({ key: task.key, startMin, endMin, personId: person });
  }
  planned.sort((a, b) => a.startMin - b.startMin || a.endMin - b.endMin);
  return { tasks: planned, endMin: Math.max(0, ...planned.map(({ endMin }) => endMin)) };
}

interface Chance {
  person: string;
  startMin: number;
  /** Which of its stations' busy lists it takes. */
  taken: Busy[];
  bonus: number;
}

/** Who can begin it first; among equals whoever worked at that station last, then whoever may do the least else. */
function firstChance(
  task: PlanTask,
  open: number,
  everyone: readonly PlanPerson[],
  people: ReadonlyMap<string, Busy>,
  stations: ReadonlyMap<string, Busy[]>,
  lastOf: ReadonlyMap<string, string>,
): Chance {
  let best: Chance | null = null;
  for (const person of everyone) {
    if (task.heldBy === null ? !may(person, task) : person.id !== task.heldBy) continue;
    const stays = task.uses.some((station) => lastOf.get(station) === person.id);
    const bonus = (stays ? 4 : 0) + (person.trained ? 0 : 2) + (person.head ? 0 : 1);
    for (const taken of choicesOf(task.uses.map((station) => stations.get(station) ?? []))) {
      const busy = [people.get(person.id) ?? [], ...taken];
      const startMin = task.heldBy === null ? freeInAll(busy, open, task.minutes) : 0;
      if (!best || startMin < best.startMin || (startMin === best.startMin && bonus > best.bonus))
        best = { person: person.id, startMin, taken, bonus };
    }
  }
  if (!best) throw new RangeError(`planBy: nobody is in who may do ${task.key}`);
  return best;
}

/** Every way to take one of each station: most have only one. */
function choicesOf(stations: readonly Busy[][]): Busy[][] {
  return stations.reduce<Busy[][]>((ways, ones) => ways.flatMap((way) => ones.map((one) => [...way, one])), [[]]);
}

/** Whether a plan is better: shorter, or as short and with less waiting. */
const sumOfStarts = (plan: Plan): number => plan.tasks.reduce((sum, { startMin }) => sum + startMin, 0);
const better = (a: Plan, b: Plan): boolean =>
  a.endMin < b.endMin || (a.endMin === b.endMin && sumOfStarts(a) < sumOfStarts(b));

/** Ranks are shaken by up to this share of the longest chain, so that other orders are tried; about the best one so far, by less and less. */
const SHAKE = 0.35;
const LEAST_SHAKE = 0.04;
/** Every so many tries one begins from the longest chains again: the best so far may be a dead end. */
const AFRESH = 4;

/** The same tasks seen from the end: what came after comes before. Only its order is used, so who is in when may be left out. */
function reversed({ tasks, people, several }: PlanProblem): PlanProblem {
  const needs = new Map<string, PlanTask['needs']>();
  for (const task of tasks)
    for (const need of task.needs) needs.set(need.key, [...(needs.get(need.key) ?? []), { ...need, key: task.key }]);
  return {
    tasks: tasks.map((task) => ({ ...task, needs: needs.get(task.key) ?? [], fromMin: 0, heldBy: null })),
    people: people.map((person) => ({ ...person, fromMin: 0 })),
    ...(several && { several }),
  };
}

type Ranks = ReadonlyMap<string, number>;

/**
 * The best of many plans: longest chain first, then orders about the best one so far (a random key search; Bean 1994), each pushed to the
 * right and back to the left (double justification; Valls, Ballestin and Quintanilla 2005).
 * @param enoughMin stops as soon as a plan is as short as this
 */
export function searchPlan(problem: PlanProblem, tries: number, random: () => number, enoughMin: number): Plan {
  const tails = tailsOf(problem.tasks);
  const longest = Math.max(1, ...tails.values());
  const fromTheEnd = reversed(problem);
  const byRanks = (ranks: Ranks): { plan: Plan; ranks: Ranks } => {
    const plan = planBy(problem, ({ key }) => ranks.get(key) ?? 0);
    const ends = endsOf(plan);
    const pushed = endsOf(planBy(fromTheEnd, ({ key }) => ends.get(key) ?? 0));
    const back = planBy(problem, ({ key }) => pushed.get(key) ?? 0);
    return better(back, plan) ? { plan: back, ranks: pushed } : { plan, ranks };
  };
  let best = byRanks(tails);
  for (let i = 1; i < tries && best.plan.endMin > enoughMin; i += 1) {
    const isFresh = i % AFRESH === 0;
    const shake = isFresh ? SHAKE : Math.max(LEAST_SHAKE, SHAKE * (1 - i / tries));
    const about = isFresh ? tails : best.ranks;
    const tried = byRanks(new Map([...about].map(([key, rank]) => [key, rank + shake * longest * (random() - 0.5)])));
    if (better(tried.plan, best.plan)) best = tried;
  }
  return best.plan;
}

const endsOf = ({ tasks }: Plan): Ranks => new Map(tasks.map(({ key, endMin }) => [key, endMin]));
