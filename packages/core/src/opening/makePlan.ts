import { searchPlan } from './listPlan.ts';
import { planModel, planOf, type SolveMip } from './planModel.ts';
import { capacityOf, headsOf, may, tailsOf, type Plan, type PlanProblem, type PlanTask } from './planProblem.ts';

/** A plan with what is proven of it. */
export interface ProvenPlan extends Plan {
  /** No plan can end sooner than this, minutes from now. */
  atLeastMin: number;
  /** Shares no time: (end - bound) / end; 0 is proven shortest. */
  gap: number;
}

export interface PlanEffort {
  /** How many orders are tried by hand before the solver is asked. */
  tries: number;
  /** Seconds that the solver may take. */
  solverS: number;
}

export const usualEffort: PlanEffort = { tries: 300, solverS: 1.2 };
/** While the bar waits for its next thing nobody waits for a proof. */
export const quickEffort: PlanEffort = { tries: 160, solverS: 0.25 };

/** A shortest plan is proven to the minute. */
const MINUTE_DUST = 1e-6;

/** A task with what must come before it and after it at the least, minutes. */
interface Placed {
  minutes: number;
  head: number;
  after: number;
}

/**
 * What no plan can beat, without a solver: the longest chain; and for every set of tasks that cannot begin before some
 * minute and leave some minutes to do after them, the work of a station, and of all hands, in between (Carlier 1982).
 */
export function simpleBoundMin(problem: PlanProblem): number {
  const { tasks, people } = problem;
  const heads = headsOf(problem);
  const tails = tailsOf(tasks);
  const placed = (of: readonly PlanTask[]): Placed[] =>
    of.map(({ key, minutes }) => ({
      minutes,
      head: heads.get(key) ?? 0,
      after: (tails.get(key) ?? minutes) - minutes,
    }));
  const chain = Math.max(0, ...placed(tasks).map(({ minutes, head, after }) => head + minutes + after));
  const fromMin = people.map((person) => person.fromMin);
  const stations = [...new Set(tasks.flatMap(({ uses }) => uses))];
  return Math.max(
    chain,
    between(placed(tasks), fromMin),
    ...stations.map((station) =>
      between(
        placed(tasks.filter(({ uses }) => uses.includes(station))),
        Array.from({ length: capacityOf(problem, station) }, () => 0),
      ),
    ),
  );
}

/** The strongest bound over all pairs of an earliest start and a least rest; `fromMin` of each pair of hands. */
function between(tasks: readonly Placed[], fromMin: readonly number[]): number {
  let bound = 0;
  for (const head of new Set(tasks.map((task) => task.head))) {
    for (const after of new Set(tasks.map((task) => task.after))) {
      const work = tasks
        .filter((task) => task.head >= head && task.after >= after)
        .reduce((sum, { minutes }) => sum + minutes, 0);
      if (work > 0)
        bound = Math.max(
          bound,
          workedOffBy(
            fromMin.map((from) => Math.max(from, head)),
            work,
          ) + after,
        );
    }
  }
  return bound;
}

/** When people who come in one after the other have done so many minutes' work at the earliest. */
function workedOffBy(fromMin: readonly number[], work: number): number {
  const comes = [...fromMin].sort((a, b) => a - b);
  let done = 0;
  for (let i = 0; i < comes.length; i += 1) {
    const here = comes[i] ?? 0;
    const most = ((comes[i + 1] ?? Infinity) - here) * (i + 1);
    if (done + most >= work) return Math.ceil(here + (work - done) / (i + 1));
    done += most;
  }
  return 0;
}

/**
 * The shortest plan that the effort finds, with what is proven of it. First many plans are built by hand; then the solver
 * is asked for one that is shorter still. If it finds that there is none, the plan is proven shortest; if its time runs
 * out, the best plan so far stands, with the gap that is left.
 * @param random makes the same plan of the same problem on every device
 * @throws RangeError when nobody is in who may do some task
 */
export function makePlan(
  problem: PlanProblem,
  solve: SolveMip | null,
  effort: PlanEffort,
  random: () => number,
): ProvenPlan {
  if (problem.tasks.length === 0) return { tasks: [], endMin: 0, atLeastMin: 0, gap: 0 };
  const bound = simpleBoundMin(problem);
  const byHand = searchPlan(problem, effort.tries, random, bound);
  if (byHand.endMin <= bound || solve === null) return proven(byHand, bound);
  const shorter = planModel(problem, byHand.endMin - 1);
  if (shorter === null) return proven(byHand, byHand.endMin);
  const answer = solve(shorter.model, effort.solverS);
  if (answer.status === 'infeasible') return proven(byHand, byHand.endMin);
  const found = answer.columns === null ? null : planOf(shorter, answer.columns, problem);
  const best = found && isPlan(found, problem) ? found : byHand;
  return proven(best, Math.max(bound, Math.ceil(answer.bound - MINUTE_DUST)));
}

function proven(plan: Plan, bound: number): ProvenPlan {
  const atLeastMin = Math.min(plan.endMin, Number.isFinite(bound) ? bound : plan.endMin);
  return { ...plan, atLeastMin, gap: plan.endMin > 0 ? (plan.endMin - atLeastMin) / plan.endMin : 0 };
}

/** Whether a plan keeps every gate, and nobody and no station does more at once than it can. */
export function isPlan(plan: Plan, problem: PlanProblem): boolean {
  const { tasks, people } = problem;
  const placed = new Map(plan.tasks.map((task) => [task.key, task]));
  const person = new Map(people.map((one) => [one.id, one]));
  const uses = new Map(tasks.map((task) => [task.key, task.uses]));
  const apart = (most: (one: string) => number, of: (key: string) => readonly string[]): boolean =>
    plan.tasks.every(({ key, startMin }) =>
      of(key).every((one) => {
        const atOnce = plan.tasks.filter(
          (other) => of(other.key).includes(one) && other.startMin <= startMin && startMin < other.endMin,
        );
        return atOnce.length <= most(one);
      }),
    );
  return (
    tasks.every((task) => {
      const at = placed.get(task.key);
      const who = at && person.get(at.personId);
      if (!at || !who) return false;
      if (task.heldBy !== null) return at.startMin === 0 && at.personId === task.heldBy;
      return (
        may(who, task) &&
        at.startMin >= Math.max(task.fromMin, who.fromMin) &&
        task.needs.every(({ key, lagMin }) => at.startMin >= (placed.get(key)?.endMin ?? 0) + lagMin)
      );
    }) &&
    apart(
      (station) => capacityOf(problem, station),
      (key) => uses.get(key) ?? [],
    ) &&
    apart(
      () => 1,
      (key) => [placed.get(key)?.personId ?? ''],
    )
  );
}
