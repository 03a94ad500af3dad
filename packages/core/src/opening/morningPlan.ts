import { MS_PER_MINUTE } from '../numbers/index.ts';
import type { JobKind } from '../facts/index.ts';
import { planBy } from './listPlan.ts';
import { minutesOf, type History, type Shots } from './jobMinutes.ts';
import { jobKey, SCALE, type Minutes } from './jobs.ts';
import type { JobState, Morning } from './openingState.ts';
import {
  may,
  rightsOf,
  tailsOf,
  type PlannedTask,
  type PlanPerson,
  type PlanProblem,
  type PlanTask,
} from './planProblem.ts';

/** What is known of the morning when it is planned at `nowMs`. */
export interface PlanInput {
  morning: Morning;
  jobs: readonly JobState[];
  /** `signedOff`: for an opening, where the house keeps such sign-offs; `mayNot`: keys of the jobs that ask for one they lack. */
  people: readonly {
    id: string;
    role: 'head' | 'barista' | 'trainee' | 'office';
    signedOff?: boolean;
    mayNot?: readonly string[];
  }[];
  history: History;
  /** By grinder: the shots that the engine expects. */
  shots: ReadonlyMap<string, Shots>;
  /** By machine: minutes from the switch to hot. */
  warmUps: ReadonlyMap<string, Minutes>;
  /** By machine: when it was switched on; absent while it is off. */
  onSinceMs: ReadonlyMap<string, number>;
  /** How many scales are shared. */
  scales: number;
  nowMs: number;
}

const isOver = ({ standing }: JobState): boolean => standing === 'done' || standing === 'skipped';
const wholeMinutes = (minutes: number): number => Math.max(1, Math.round(minutes));

/** What is left of the morning, as a problem for the planner. */
export function planProblem(input: PlanInput): PlanProblem {
  const { morning, jobs, nowMs, history, shots, warmUps, onSinceMs } = input;
  const people = crew(input);
  const left = jobs.filter((state) => !isOver(state));
  const open = new Set(left.map(({ job }) => job.key));
  const held = new Set<string>();
  const tasks = left.map((state): PlanTask => {
    const { job } = state;
    const usual = minutesOf(job.kind, history, shots.get(job.stationId ?? '') ?? null, morning.detergent);
    const heldBy = holder(state, people, held);
    const took = heldBy === null || state.beganAtMs === null ? 0 : (nowMs - state.beganAtMs) / MS_PER_MINUTE;
    const warm = job.kind === 'hot' ? warmUps.get(job.stationId ?? '') : undefined;
    const onSince = job.kind === 'hot' ? onSinceMs.get(job.stationId ?? '') : undefined;
    return {
      key: job.key,
      who: job.who,
      uses: job.uses,
      heldBy,
      minutes: wholeMinutes(usual.meanMin - took),
      sdMinutes: usual.sdMin,
      fromMin: warm && onSince !== undefined ? leftOf(onSince, warm, nowMs) : 0,
      needs: job.needs
        .filter((key) => open.has(key))
        .map((key) => {
          const heats = warm && key === jobKey('switchOn', job.stationId);
          return { key, lagMin: heats ? Math.round(warm.meanMin) : 0, lagSdMin: heats ? warm.sdMin : 0 };
        }),
    };
  });
  return {
    tasks: tasks.filter((task) => people.some((person) => may(person, task))),
    people,
    several: { [SCALE]: Math.max(1, input.scales) },
  };
}

/** The plan at once, task by task as early as each can begin: neither the engine nor the solver is asked. */
export function quickPlan(input: PlanInput): PlannedTask[] {
  const problem = planProblem(input);
  const tails = tailsOf(problem.tasks);
  return planBy(problem, ({ key }) => tails.get(key) ?? 0).tasks;
}

const leftOf = (sinceMs: number, warm: Minutes, nowMs: number): number =>
  Math.max(0, Math.round(warm.meanMin - (nowMs - sinceMs) / MS_PER_MINUTE));

/** One pair of hands holds one thing: of several that somebody began, the first that is left. */
function holder(state: JobState, people: readonly PlanPerson[], held: Set<string>): string | null {
  const { personId } = state;
  if (state.standing !== 'underWay' || personId === null || held.has(personId)) return null;
  const here = people.find(({ id, fromMin }) => id === personId && fromMin <= 0);
  if (!here) return null;
  held.add(personId);
  return personId;
}

function crew({ morning, people, nowMs }: PlanInput): PlanPerson[] {
  return morning.people.flatMap(({ personId, fromMs }) => {
    const person = people.find(({ id }) => id === personId);
    if (!person) return [];
    const { id, role, signedOff, mayNot } = person;
    return [
      {
        id,
        fromMin: Math.max(0, Math.round((fromMs - nowMs) / MS_PER_MINUTE)),
        ...rightsOf(role, signedOff, mayNot),
      },
    ];
  });
}

/** Jobs that nobody who is in may do: the plan leaves them out, and the page says so. */
export function withoutHands(input: PlanInput): { key: string; kind: JobKind }[] {
  const people = crew(input);
  return input.jobs
    .filter((state) => !isOver(state) && !people.some((person) => may(person, state.job)))
    .map(({ job }) => ({ key: job.key, kind: job.kind }));
}
