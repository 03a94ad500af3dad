import {
  factsAfter,
  ofGrinder,
  ofKind,
  type FactOf,
  type StandingFacts,
  type StandingFact,
  type StepFact,
  type StepOf,
} from '../facts/index.ts';
import { collarStandsAt, isGroupCheck, lastLock, touchedSinceLock } from './stands.ts';

/** A grind time of one recipe. */
interface SetDose {
  recipeVersionId: string;
  doseTimeS: number;
}

/** How a grinder was set when it last held. */
export interface GrinderSet {
  lock: FactOf<'lock'>;
  setting: number;
  /** Grind times, the locked recipe's first; one that was proven after the lock stands above the lock's own. */
  doses: SetDose[];
  /** Whether collar, bag or aim have changed since: what is set is then no longer what holds. */
  changed: boolean;
}

/** How a grinder is set: what sign-off, wall card and bench say of its dial and dose times. Null before its first lock. */
export function grinderSet(facts: StandingFacts, grinderId: string): GrinderSet | null {
  const own = ofGrinder(facts, grinderId);
  const lock = lastLock(own);
  if (!lock) return null;
  const proven = facts.findLast(
    (fact): fact is StepFact<StepOf<'doseTime'> | StepOf<'doseSet'>> =>
      fact.kind === 'step' &&
      (fact.body.step === 'doseTime' || fact.body.step === 'doseSet') &&
      fact.body.grinderId === grinderId &&
      fact.at >= lock.at,
  );
  const { recipeVersionId, doseTimeS, otherDoses = [] } = lock.body;
  const ownS = proven?.body.grindTimeS ?? doseTimeS;
  const doses = [...(ownS === null ? [] : [{ recipeVersionId, doseTimeS: ownS }]), ...otherDoses];
  const touched = touchedSinceLock(own);
  return {
    lock,
    // A small move in service has moved what is set; a dialling that goes on has not.
    setting: touched ? lock.body.setting : (collarStandsAt(own) ?? lock.body.setting),
    doses,
    changed: touched || aimChange(facts, grinderId) !== null,
  };
}

/**
 * The last change for taste since the lock, or the undoing of one that was locked; null where nothing was locked, nothing changed, or
 * a sound shot has been poured so since. Until then the lock speaks of another cup.
 * @param facts of the bar
 */
export function aimChange(facts: StandingFacts, grinderId: string): StepFact | null {
  const lock = lastLock(ofGrinder(facts, grinderId));
  if (!lock) return null;
  const lockedMs = Date.parse(lock.at);
  const changed = factsAfter(facts, lock).findLast(
    (fact): fact is StepFact & StandingFact => fact.kind === 'step' && isChangeOfAim(fact.body, grinderId, lockedMs),
  );
  if (!changed) return null;
  const poured = ofKind(ofGrinder(factsAfter(facts, changed), grinderId), 'shot');
  return poured.some((shot) => shot.body.flaw === null && !isGroupCheck(shot)) ? null : changed;
}

function isChangeOfAim(body: StepFact['body'], grinderId: string, lockedMs: number): boolean {
  if (body.step === 'tasteSettled') return body.grinderId === grinderId && body.change !== null;
  // What was changed and undone since the lock leaves it as it was locked.
  return body.step === 'takenBack' && body.undid?.grinderId === grinderId && body.undid.atMs < lockedMs;
}
