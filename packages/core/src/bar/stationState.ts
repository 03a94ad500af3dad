import { MS_PER_MINUTE } from '../numbers/index.ts';
import { asCorrected, type AnyFact, type FactOf } from '../facts/index.ts';
import { isCheck, newBagWaiting, settingAfter } from '../calibration/index.ts';

/** How a grinder stands towards its window. */
export type Standing = 'held' | 'due' | 'dialling' | 'never';

export interface GrinderStanding {
  standing: Standing;
  setting: number;
  lastLock: FactOf<'lock'> | null;
  /** When the next check falls due, ms since the epoch; null when nothing was ever locked. */
  dueAtMs: number | null;
  /** When another bag went in and no shot was pulled of it yet; null otherwise. */
  newBagAtMs: number | null;
  /** Shots since the last lock. */
  shotsSince: number;
}

/** Where a grinder stands, from its facts since (and with) its last lock; facts in any order. */
export function grinderStanding(facts: readonly AnyFact[], seedSetting: number, nowMs: number): GrinderStanding {
  const standing = asCorrected(facts);
  const lockIndex = standing.findLastIndex((fact) => fact.kind === 'lock');
  const lastLock = lockIndex < 0 ? null : (standing[lockIndex] as FactOf<'lock'>);
  const since = standing.slice(lockIndex + 1).filter((fact) => !isCheck(fact));
  const shotsSince = since.filter((fact) => fact.kind === 'shot').length;
  const touched = since.some((fact) => fact.kind === 'shot' || fact.kind === 'collarMove');
  const newBagAtMs = newBagWaiting(since);
  const byClockMs = lastLock ? Date.parse(lastLock.at) + lastLock.body.nextCheckMin * MS_PER_MINUTE : null;
  // Another bag is another bed: its check falls due at once.
  const dueAtMs = byClockMs === null ? null : Math.min(byClockMs, newBagAtMs ?? Infinity);
  return {
    standing: touched ? 'dialling' : dueAtMs === null ? 'never' : nowMs >= dueAtMs ? 'due' : 'held',
    setting: settingAfter(standing) ?? seedSetting,
    lastLock,
    dueAtMs,
    newBagAtMs,
    shotsSince,
  };
}

/** Which grinder needs a hand first: one half dialled, then the longest due, then one that never held. Null when all hold. */
export function nextGrinder<T extends { state: GrinderStanding }>(grinders: readonly T[]): T | null {
  const urgency: Record<Standing, number> = { dialling: 0, due: 1, never: 2, held: 3 };
  const waiting = grinders.filter((grinder) => grinder.state.standing !== 'held');
  return (
    waiting.toSorted(
      (a, b) =>
        urgency[a.state.standing] - urgency[b.state.standing] || (a.state.dueAtMs ?? 0) - (b.state.dueAtMs ?? 0),
    )[0] ?? null
  );
}
