import {
  factsAfter,
  factsWhere,
  lastOfKind,
  type FactOf,
  type StandingFact,
  type StandingFacts,
} from '../facts/index.ts';

/** Where one grinder stands by its own facts: the answers that bench, home, opening and hand-over all start from. */

/** Whether a fact is a shot that was pulled where the grinder holds, and no shot of its dialling in. */
export const isCheck = (fact: StandingFact): boolean => fact.kind === 'shot' && fact.body.check === true;

/** Whether it is one of those that checks a group, and not a guest's shot that was timed. */
export const isGroupCheck = (fact: StandingFact): boolean =>
  fact.kind === 'shot' && fact.body.check === true && fact.body.service !== true;

/** The lock that holds until another does; null before the first. @param own facts of one grinder */
export const lastLock = (own: StandingFacts): FactOf<'lock'> | null => lastOfKind(own, 'lock');

/**
 * What happened since the last lock. A check of a group is pulled where the grinder holds: it says nothing against its lock
 * and is left out. @param own facts of one grinder
 */
export const sinceLastLock = (own: StandingFacts): StandingFacts =>
  factsWhere(factsAfter(own, lastLock(own)), (fact) => !isCheck(fact));

/** Where the last fact that speaks of the collar left it; null when none does. @param own facts of one grinder */
export function collarStandsAt(own: StandingFacts): number | null {
  const last = own.findLast(({ kind }) => kind === 'collarMove' || kind === 'lock' || kind === 'shot');
  if (last?.kind === 'collarMove') return last.body.to;
  return last?.kind === 'lock' || last?.kind === 'shot' ? last.body.setting : null;
}

/**
 * When the last bag went in since the last lock, ms since the epoch; null where a shot was pulled or timed since, or none went in. A
 * customer's shot that was timed is one, and the check of a group is not. @param own facts of one grinder
 */
export function newBagWaitsSinceMs(own: StandingFacts): number | null {
  const last = factsAfter(own, lastLock(own)).findLast(
    (fact) => fact.kind === 'newBag' || (fact.kind === 'shot' && !isGroupCheck(fact)),
  );
  return last?.kind === 'newBag' ? Date.parse(last.at) : null;
}

/** Whether somebody dialled on since the last lock; a small move in service keeps what was locked. @param own facts of one grinder */
export const touchedSinceLock = (own: StandingFacts): boolean =>
  sinceLastLock(own).some((fact) => fact.kind === 'shot' || (fact.kind === 'collarMove' && fact.body.service !== true));
