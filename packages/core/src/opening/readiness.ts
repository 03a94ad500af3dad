import { gaussian } from '../numbers/index.ts';
import { planBy } from './listPlan.ts';
import type { Plan, PlanProblem } from './planProblem.ts';

/** How the morning may end, when its jobs take what they take. Minutes from now. */
export interface Readiness {
  /** Share of the played mornings that were ready in time. */
  chance: number;
  /** Half of the mornings end by then. */
  midMin: number;
  /** Eight of ten mornings end between these. */
  lowMin: number;
  highMin: number;
}

/** A duration with this mean and sd that is never negative: log-normal, since jobs run late more than early. */
function duration(mean: number, sd: number, random: () => number): number {
  if (mean <= 0 || sd <= 0) return Math.max(0, mean);
  const variance = Math.log(1 + (sd / mean) ** 2);
  return Math.exp(Math.log(mean) - variance / 2 + Math.sqrt(variance) * gaussian(random));
}

/** The problem of one morning as it may turn out. */
function drawn(problem: PlanProblem, random: () => number): PlanProblem {
  return {
    ...problem,
    tasks: problem.tasks.map((task) => ({
      ...task,
      minutes: duration(task.minutes, task.sdMinutes, random),
      needs: task.needs.map((need) => ({ ...need, lagMin: duration(need.lagMin, need.lagSdMin, random) })),
    })),
  };
}

/** Ends of `runs` mornings that follow the plan's order, ascending. */
function ends(problem: PlanProblem, plan: Plan, runs: number, random: () => number): number[] {
  const startOf = new Map(plan.tasks.map(({ key, startMin }) => [key, startMin]));
  return Array.from(
    { length: runs },
    () => planBy(drawn(problem, random), ({ key }) => -(startOf.get(key) ?? Infinity)).endMin,
  ).sort((a, b) => a - b);
}

/**
 * The chance that all is over by `untilMin`, by playing the plan `runs` times with durations drawn from their doubt
 * (Monte Carlo): everybody keeps to the plan's order and goes on as soon as gates, stations and hands allow.
 */
export function readiness(
  problem: PlanProblem,
  plan: Plan,
  untilMin: number,
  runs: number,
  random: () => number,
): Readiness {
  if (problem.tasks.length === 0) return { chance: 1, midMin: 0, lowMin: 0, highMin: 0 };
  const played = ends(problem, plan, runs, random);
  const at = (share: number): number => played[Math.round(share * (runs - 1))] ?? 0;
  return {
    chance: played.filter((end) => end <= untilMin).length / runs,
    midMin: at(0.5),
    lowMin: at(0.1),
    highMin: at(0.9),
  };
}

/**
 * The latest minute from now at which the first machine may be switched on and the bar still be ready by `untilMin` with
 * the house's sureness; null when no machine waits for it, or even now is too late.
 */
export function latestSwitchOnMin(
  problem: PlanProblem,
  plan: Plan,
  untilMin: number,
  sureness: number,
  runs: number,
  draw: () => () => number,
): number | null {
  const isSwitch = ({ key }: { key: string }): boolean => key.startsWith('switchOn:');
  if (!problem.tasks.some(isSwitch)) return null;
  const readyWhenOnAt = (fromMin: number): boolean => {
    const tasks = problem.tasks.map((task) => (isSwitch(task) && task.heldBy === null ? { ...task, fromMin } : task));
    // The same draws for each candidate, so that later is never luckier.
    return readiness({ ...problem, tasks }, plan, untilMin, runs, draw()).chance >= sureness;
  };
  if (!readyWhenOnAt(0)) return null;
  let [safe, late] = [0, Math.max(1, Math.ceil(untilMin))];
  while (late - safe > 1) {
    const middle = Math.floor((safe + late) / 2);
    if (readyWhenOnAt(middle)) safe = middle;
    else late = middle;
  }
  return safe;
}
