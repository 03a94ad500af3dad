import type { StandingFact } from '../facts/index.ts';
import { engineDefaults } from './engineDefaults.ts';

/** Grounds that went through a grinder since its last shot or collar move, without becoming a shot: they purge it. */
export interface Passing {
  readonly purgedG: number;
  /** The weighed dose in the portafilter; thrown away when another takes its place. */
  readonly waitingG: number | null;
}

export const nothingPassed: Passing = { purgedG: 0, waitingG: null };

/** What has passed after one more fact; facts of other grinders pass nothing. */
export function passedBy(before: Passing, fact: StandingFact, grinderId: string): Passing {
  if (fact.kind === 'step') {
    if (fact.body.step !== 'doseTime' || fact.body.grinderId !== grinderId) return before;
    const { discardedG, dosesG } = fact.body;
    return { ...before, purgedG: dosesG.reduce((sum, doseG) => sum + doseG, before.purgedG + discardedG) };
  }
  if (fact.grinderId !== grinderId) return before;
  if (fact.kind === 'purge') return { ...before, purgedG: before.purgedG + fact.body.purgeG };
  if (fact.kind === 'seen') {
    const clumps = fact.body.sign === 'clumping';
    return clumps ? { ...before, purgedG: before.purgedG + engineDefaults.clumpingPurgesG } : before;
  }
  if (fact.kind === 'dose') {
    return { purgedG: before.purgedG + (before.waitingG ?? 0), waitingG: fact.body.doseG };
  }
  return fact.kind === 'collarMove' || fact.kind === 'shot' ? nothingPassed : before;
}
