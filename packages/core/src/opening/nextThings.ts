import type { JobState } from './openingState.ts';
import type { PlannedTask } from './planProblem.ts';

/** One line of a person's morning. */
export interface NextThing {
  state: JobState;
  /** When the plan has it begin, minutes from the plan's now; null where the plan does not know it. */
  startMin: number | null;
}

const HOW_MANY = 3;

/**
 * What this person does now and next: what they have in hand, then what the plan gives them. What somebody else has begun
 * is left to them; whoever is not in the plan gets what is ready and nobody's.
 */
export function nextThings(states: readonly JobState[], plan: readonly PlannedTask[], personId: string): NextThing[] {
  const byKey = new Map(states.map((state) => [state.job.key, state]));
  const mine = states.filter(({ standing, personId: by }) => standing === 'underWay' && by === personId);
  const inHand = mine.map((state) => ({ state, startMin: 0 }));
  const free = ({ standing }: JobState): boolean => standing === 'ready' || standing === 'waiting';
  const planned = plan.flatMap((task): NextThing[] => {
    const state = byKey.get(task.key);
    return state && task.personId === personId && free(state) ? [{ state, startMin: task.startMin }] : [];
  });
  const isPlanned = new Set(plan.map(({ key }) => key));
  const knownHere = plan.some((task) => task.personId === personId);
  const others = states
    .filter((state) => state.standing === 'ready' && (!knownHere || !isPlanned.has(state.job.key)))
    .map((state) => ({ state, startMin: null }));
  const all = [...inHand, ...planned, ...(knownHere ? [] : others)];
  // A thing that can be begun goes before one that still waits, unless the plan has both at the same minute.
  const sorted = all
    .map((thing, i) => ({ thing, i }))
    .toSorted(
      (a, b) =>
        Number(b.thing.state.standing === 'underWay') - Number(a.thing.state.standing === 'underWay') || a.i - b.i,
    )
    .map(({ thing }) => thing);
  return sorted.slice(0, HOW_MANY);
}
