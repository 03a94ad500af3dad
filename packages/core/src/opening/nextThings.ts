import type { Job } from './jobs.ts';
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
 * is left to them. Where all of theirs waits for a gate, something that is ready goes first, whoever it was planned for:
 * nobody stands by while there is work, and two tablets whose plans differ cannot wait for each other.
 * @param mayDo whether this person may do a job that the plan gave to somebody else
 */
export function nextThings(
  states: readonly JobState[],
  plan: readonly PlannedTask[],
  personId: string,
  mayDo: (job: Job) => boolean = () => true,
): NextThing[] {
  const byKey = new Map(states.map((state) => [state.job.key, state]));
  const inHand = states
    .filter(({ standing, personId: by }) => standing === 'underWay' && by === personId)
    .map((state) => ({ state, startMin: 0 }));
  const own = plan.flatMap((task): NextThing[] => {
    const state = byKey.get(task.key);
    const free = state?.standing === 'ready' || state?.standing === 'waiting';
    return state && free && task.personId === personId ? [{ state, startMin: task.startMin }] : [];
  });
  const isReady = ({ state }: NextThing): boolean => state.standing === 'ready';
  const ready = own.filter(isReady);
  const standsBy = inHand.length === 0 && ready.length === 0;
  const anybodys = standsBy
    ? states
        .filter(({ standing, job }) => standing === 'ready' && mayDo(job))
        .map((state) => ({ state, startMin: null }))
    : [];
  const waiting = own.filter((thing) => !isReady(thing));
  return [...inHand, ...ready, ...anybodys, ...waiting].slice(0, HOW_MANY);
}
