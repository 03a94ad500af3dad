import {
  aimChange,
  collarStandsAt,
  lastLock,
  newBagWaitsSinceMs,
  sinceLastLock,
  touchedSinceLock,
} from '../calibration/index.ts';
import { isLook, ofGrinder, ofKind, type FactOf, type StandingFacts } from '../facts/index.ts';
import { businessDay } from '../house/index.ts';
import { MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';

/** How a grinder stands towards its window. */
export type HoldState = 'held' | 'due' | 'dialling' | 'never';

export interface GrinderState {
  standing: HoldState;
  setting: number;
  lastLock: FactOf<'lock'> | null;
  /** When the next check falls due, ms since the epoch; null when nothing was ever locked. */
  dueAtMs: number | null;
  dueCause: DueCause | null;
  /** When another bag went in and no shot was pulled of it yet; null otherwise. */
  newBagAtMs: number | null;
  /** Shots since the last lock. */
  shotsSince: number;
  /** When a guest's cup of it was last timed, looked at or turned for, ms since the epoch; null: none was. */
  servedAtMs: number | null;
}

/**
 * Why a check falls due: by the lock's own clock, since another bag went in, since taste changed what is aimed at, or since an
 * opening began after the lock.
 */
export type DueCause = 'clock' | 'newBag' | 'taste' | 'opening';

/** What makes a check due beside the lock's own clock, ms since the epoch; null: it did not happen. */
export interface DueSince {
  newBagAtMs: number | null;
  aimChangedAtMs: number | null;
  /** From when on a lock counts for the run in hand. */
  openingFromMs: number | null;
  /** When that run began, a little later where it takes what was just locked; absent: then. */
  runFromMs?: number | null;
  /** When the day's controller wants it looked at; null: by the lock's own word. */
  clockMs?: number | null;
}

/**
 * When a grinder that was locked wants its next check, and why; the earliest cause counts. Null where nothing was locked.
 */
export function checkDue(
  lock: FactOf<'lock'> | null,
  { newBagAtMs, aimChangedAtMs, openingFromMs, runFromMs = null, clockMs = null }: DueSince,
): { atMs: number; cause: DueCause } | null {
  if (lock === null) return null;
  const lockedMs = Date.parse(lock.at);
  const causes: { atMs: number; cause: DueCause }[] = [
    { atMs: clockMs ?? lockedMs + lock.body.nextCheckMin * MS_PER_MINUTE, cause: 'clock' },
  ];
  // Another bag is another bed: its check falls due at once.
  if (newBagAtMs !== null) causes.push({ atMs: newBagAtMs, cause: 'newBag' });
  // Another aim is another cup: what was locked speaks of the one before.
  if (aimChangedAtMs !== null) causes.push({ atMs: aimChangedAtMs, cause: 'taste' });
  // A lock from before the opening is yesterday's: every grinder is looked at in the morning.
  if (openingFromMs !== null && lockedMs < openingFromMs)
    causes.push({ atMs: runFromMs ?? openingFromMs, cause: 'opening' });
  return causes.reduce((first, next) => (next.atMs < first.atMs ? next : first));
}

/**
 * Where a grinder stands.
 * @param facts of the bar
 */
export function grinderState(
  facts: StandingFacts,
  { id, seedSetting }: { id: string; seedSetting: number },
  nowMs: number,
  {
    openingFromMs = null,
    runFromMs = null,
    clockMs = null,
  }: Partial<Omit<DueSince, 'newBagAtMs' | 'aimChangedAtMs'>> = {},
): GrinderState {
  const own = ofGrinder(facts, id);
  const lock = lastLock(own);
  const since = sinceLastLock(own);
  const newBagAtMs = newBagWaitsSinceMs(own);
  const changed = aimChange(facts, id);
  const aimChangedAtMs = changed && Date.parse(changed.at);
  const due = checkDue(lock, { newBagAtMs, aimChangedAtMs, openingFromMs, runFromMs, clockMs });
  return {
    standing: touchedSinceLock(own) ? 'dialling' : due === null ? 'never' : nowMs >= due.atMs ? 'due' : 'held',
    setting: collarStandsAt(own) ?? seedSetting,
    lastLock: lock,
    dueAtMs: due?.atMs ?? null,
    dueCause: due?.cause ?? null,
    newBagAtMs,
    shotsSince: ofKind(since, 'shot').length,
    servedAtMs: lastServedMs(own),
  };
}

function lastServedMs(own: StandingFacts): number | null {
  const last = own.findLast(
    (fact) =>
      ((fact.kind === 'shot' || fact.kind === 'collarMove') && fact.body.service === true) ||
      (fact.kind === 'seen' && isLook(fact.body.sign)),
  );
  return last ? Date.parse(last.at) : null;
}

/** A shift: a bar that serves past the turn of its day goes on serving. */
const SHIFT_MS = 8 * MS_PER_HOUR;
/** And however long ago it was locked, while guests' cups of it are looked at. */
const LOOKED_AT_MS = 2 * MS_PER_HOUR;

/** Whether a grinder serves: it was locked on this business day or in this shift, or served just now, and nobody dials it in. */
export function servesToday(
  { standing, lastLock: lock, servedAtMs: servedMs }: GrinderState,
  { timeZone, dayStartsMin }: { timeZone: string; dayStartsMin: number },
  nowMs: number,
): boolean {
  if ((standing !== 'held' && standing !== 'due') || lock === null) return false;
  const dayOf = (atMs: number): string => businessDay(atMs, timeZone, dayStartsMin);
  const lockedMs = Date.parse(lock.at);
  if (nowMs - lockedMs < SHIFT_MS || dayOf(lockedMs) === dayOf(nowMs)) return true;
  return servedMs !== null && nowMs - servedMs < LOOKED_AT_MS;
}

/** Which grinder needs a hand first: one half dialled, then the longest due, then one that never held. Null when all hold. */
export function nextGrinder<T extends { state: GrinderState }>(grinders: readonly T[]): T | null {
  const urgency: Record<HoldState, number> = { dialling: 0, due: 1, never: 2, held: 3 };
  const waiting = grinders.filter((grinder) => grinder.state.standing !== 'held');
  return (
    waiting.toSorted(
      (a, b) =>
        urgency[a.state.standing] - urgency[b.state.standing] || (a.state.dueAtMs ?? 0) - (b.state.dueAtMs ?? 0),
    )[0] ?? null
  );
}
