import { ofGrinder, stepsOf, type FactOf, type StandingFacts, type StepFact, type StepOf } from '../facts/index.ts';
import { collarStandsAt, lastLock, touchedSinceLock } from './stands.ts';

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
    changed: touched || aimChangedSince(facts, grinderId, lock),
  };
}

/** Whether taste changed what is aimed at after this lock: it speaks of another cup, until a shot has confirmed the new one. */
export function aimChangedSince(facts: StandingFacts, grinderId: string, lock: FactOf<'lock'>): boolean {
  return stepsOf(facts, 'tasteSettled').some(
    ({ at, body }) => body.grinderId === grinderId && body.change !== null && at > lock.at,
  );
}
