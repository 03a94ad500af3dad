import { MS_PER_DAY } from '../numbers/index.ts';
import { groupOf, levelOf, responseOf, withoutUnknowns, type BarModel } from './barModel.ts';
import type { BarMemory, GrinderMemory, RecentShot } from './memoryState.ts';
import { updateWithObservation, robustWeights, type Observation } from './observations.ts';

/** A grinder with a coffee, or a group, that nobody pulled for so long is as good as new. */
const IDLE_DAYS = 60;

const withObservation = (shot: RecentShot): shot is RecentShot & { observed: Observation } => shot.observed !== null;

/** The bar as far as it concerns one grinder: an exact marginal, and much smaller. */
function onlyFor(bar: BarModel, grinderId: string): BarModel {
  const other = bar.belief.names.filter((name) => {
    const of = /^(?:level|response) (\S+)/.exec(name)?.[1];
    return of !== undefined && of !== grinderId;
  });
  return withoutUnknowns(bar, other);
}

const weightsMade = new WeakMap<readonly RecentShot[], { base: BarModel; weights: ReadonlyMap<string, number> }>();

/** Weight of each of a grinder's recent shots by what all the others say, by fact; made once for the same shots. */
export function weightsOfRecent({ base }: BarMemory, grinderId: string, { recent }: GrinderMemory) {
  const made = weightsMade.get(recent);
  if (made?.base === base) return made.weights;
  const heard = recent.filter(withObservation);
  const found = robustWeights(
    onlyFor(base, grinderId),
    heard.map(({ observed }) => observed),
  );
  const weights = new Map(heard.map(({ factId }, i) => [factId, found[i] ?? 1]));
  weightsMade.set(recent, { base, weights });
  return weights;
}

/** The oldest of a grinder's recent shots become part of the base, each with its weight by all the others. */
export function foldIn(memory: BarMemory, grinderId: string, shots: number): BarMemory {
  const grinder = memory.grinders[grinderId];
  if (!grinder) return memory;
  const weights = weightsOfRecent(memory, grinderId, grinder);
  const base = grinder.recent
    .slice(0, shots)
    .filter(withObservation)
    .reduce(
      (bar, { factId, observed }) => updateWithObservation(bar, observed, weights.get(factId) ?? 1).bar,
      memory.base,
    );
  return {
    ...memory,
    base,
    grinders: { ...memory.grinders, [grinderId]: { ...grinder, recent: grinder.recent.slice(shots) } },
  };
}

/** Leaves out what nobody has used for long, so that the memory does not grow for ever. */
export function foldOutIdle(memory: BarMemory, nowMs: number): BarMemory {
  const idle = (lastAtMs: number | null): boolean => lastAtMs !== null && nowMs - lastAtMs > IDLE_DAYS * MS_PER_DAY;
  let kept = memory;
  for (const [id, grinder] of Object.entries(memory.grinders)) {
    if (!grinder.levels.some(({ lastAtMs }) => idle(lastAtMs))) continue;
    // What was recently pulled with a coffee that is idle by now goes into the base first.
    const done = idle(grinder.lastShotAtMs) ? foldIn(kept, id, grinder.recent.length) : kept;
    const now = done.grinders[id] ?? grinder;
    const waiting = new Set(now.recent.filter(withObservation).map(({ observed }) => observed.shot.coffee ?? null));
    const gone = now.levels.filter(({ coffee, lastAtMs }) => idle(lastAtMs) && !waiting.has(coffee));
    const levels = now.levels.filter((level) => !gone.includes(level));
    const names = gone.map(({ coffee }) => levelOf(id, coffee));
    if (levels.length === 0) names.push(responseOf(id));
    kept = {
      ...done,
      base: withoutUnknowns(done.base, names),
      grinders: { ...done.grinders, [id]: { ...now, levels } },
    };
  }
  const goneGroups = Object.entries(kept.groups).filter(
    ([id, { lastAtMs }]) => idle(lastAtMs) && !isWaitedFor(kept, id),
  );
  if (goneGroups.length === 0) return kept;
  const ids = new Set(goneGroups.map(([id]) => id));
  return {
    ...kept,
    base: withoutUnknowns(kept.base, [...ids].map(groupOf)),
    groups: Object.fromEntries(Object.entries(kept.groups).filter(([id]) => !ids.has(id))),
  };
}

const isWaitedFor = ({ grinders }: BarMemory, group: string): boolean =>
  Object.values(grinders).some(({ recent }) => recent.some(({ observed }) => observed?.shot.group === group));
