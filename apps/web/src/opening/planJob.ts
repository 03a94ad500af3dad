import { MS_PER_MINUTE, seededRandom } from '@tempera/core/numbers';
import type { Bar } from '@tempera/contract/bar';
import { standingFacts, type Entry } from '@tempera/core/facts';
import {
  latestSwitchOnMin,
  makePlan,
  planProblem,
  readiness,
  withoutHands,
  type PlanEffort,
  type PlanInput,
  type PlanSeen,
  type ProvenPlan,
  type Readiness,
  type Shots,
  type SolveMip,
} from '@tempera/core/opening';
import { rollout } from '@tempera/core/calibration';
import { viewBench } from '../calibration/index.ts';
import { memoryOf } from '../kernel/barMemory.ts';

/** What the worker needs to plan a morning: facts and numbers only. */
export interface PlanJob {
  key: string;
  input: Omit<PlanInput, 'shots'>;
  bar: Bar;
  /** What stands of the whole bar. */
  facts: readonly Entry[];
  effort: PlanEffort;
}

/** A plan with everything that is said of it. */
export interface PlanFound {
  key: string;
  /** The run that it plans. */
  fromMs: number;
  /** What it was made from, to tell what a later one changes. */
  seen: PlanSeen;
  /** The moment that the plan's minutes count from. */
  nowMs: number;
  plan: ProvenPlan;
  ready: Readiness;
  /** Minutes from now; null when nothing waits to be switched on, or it is too late. */
  latestSwitchOnMin: number | null;
  switchesLeft: boolean;
  /** Jobs for which nobody is in. */
  withoutHands: string[];
  /** How long the planning took. */
  tookMs: number;
}

/** The same seed on every device: the same facts make the same plan. */
const SEED = 11;
const FORESEEN_WAYS = 24;
const MORNINGS = 300;
const MORNINGS_OF_A_CANDIDATE = 120;

/** Shots that the engine expects of each grinder that is still to be dialled in. */
function expectedShots({ input, bar, facts }: PlanJob): Map<string, Shots> {
  const open = input.jobs.filter(
    ({ job, standing }) => job.kind === 'dial' && standing !== 'done' && standing !== 'skipped',
  );
  const standing = standingFacts(facts);
  const memory = memoryOf(bar, standing);
  return new Map(
    open.flatMap(({ job }): [string, Shots][] => {
      const grinder = bar.grinders.find(({ id }) => id === job.stationId);
      if (!grinder) return [];
      const { state, advice } = viewBench(grinder, standing, bar, input.nowMs, memory);
      const { setting, purgeG, doseG } = advice;
      const seen = rollout(state.adviceCase, { setting, purgeG, doseG }, FORESEEN_WAYS, seededRandom(SEED));
      return [[grinder.id, { mean: seen.shots, sd: seen.shotsSd }]];
    }),
  );
}

const shotsOf = new Map<string, Map<string, Shots>>();

/** Foreseeing takes longest, and changes only with a bench's own facts. */
function shotsFor(job: PlanJob): Map<string, Shots> {
  const key = job.facts.map(({ id }) => id).join();
  const known = shotsOf.get(key) ?? expectedShots(job);
  shotsOf.clear();
  shotsOf.set(key, known);
  return known;
}

/** Plans a morning. @param solve null: by hand only */
export function planFor(job: PlanJob, solve: SolveMip | null): PlanFound {
  const began = performance.now();
  const input: PlanInput = { ...job.input, shots: shotsFor(job) };
  const problem = planProblem(input);
  const untilMin = (input.morning.opensAtMs - input.nowMs) / MS_PER_MINUTE;
  const plan = makePlan(problem, solve, job.effort, seededRandom(SEED));
  return {
    key: job.key,
    fromMs: input.morning.fromMs,
    seen: {
      endAtMs: input.nowMs + plan.endMin * MS_PER_MINUTE,
      opensAtMs: input.morning.opensAtMs,
      people: input.morning.people.map(({ personId }) => personId),
      jobs: input.jobs,
    },
    nowMs: input.nowMs,
    plan,
    ready: readiness(problem, plan, untilMin, MORNINGS, seededRandom(SEED)),
    latestSwitchOnMin: latestSwitchOnMin(problem, plan, untilMin, job.bar.house.sureness, MORNINGS_OF_A_CANDIDATE, () =>
      seededRandom(SEED),
    ),
    switchesLeft: problem.tasks.some(({ key }) => key.startsWith('switchOn:')),
    withoutHands: withoutHands(input).map(({ key }) => key),
    tookMs: performance.now() - began,
  };
}
