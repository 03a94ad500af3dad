import type { AdviceCase, HeardShot } from './adviceCase.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { HeardOutcome } from './learn.ts';

/** What the last shot is worth, before anyone touches the collar. The first that applies wins. */
export type Judgement =
  | { kind: 'noShot' }
  | { kind: 'moved'; to: number }
  | { kind: 'notPurged'; oldShare: number }
  | { kind: 'noEvidence'; fault: 'channel' | 'prep' }
  | { kind: 'choked' }
  | { kind: 'doseOff'; byG: number }
  | { kind: 'sound'; normalisedS: number; missS: number };

/** Judges the last shot of a case, in the order: moved since, not purged, no evidence, dose, time. */
export function judgeLast(input: AdviceCase, heard: readonly HeardOutcome[]): Judgement {
  const shot = input.shots.at(-1);
  const outcome = heard.at(-1);
  if (!shot || !outcome) return { kind: 'noShot' };
  if (input.standsAt !== null && input.standsAt !== shot.setting) return { kind: 'moved', to: input.standsAt };
  if (outcome.oldShare > engineDefaults.oldShareNotPurged) return { kind: 'notPurged', oldShare: outcome.oldShare };
  if (shot.fault === 'channel' || shot.fault === 'prep') return { kind: 'noEvidence', fault: shot.fault };
  const byG = doseMissG(shot, input);
  if (byG !== 0) return { kind: 'doseOff', byG };
  if (shot.fault === 'choke' || outcome.normalisedS === null) return { kind: 'choked' };
  return { kind: 'sound', normalisedS: outcome.normalisedS, missS: missOf(outcome.normalisedS, input.recipe.timeS) };
}

/** Grams outside the tolerance: 0 inside; otherwise the whole deviation from the recipe, signed. */
export function doseMissG(shot: Pick<HeardShot, 'doseG'>, input: Pick<AdviceCase, 'recipe'>): number {
  const byG = shot.doseG - input.recipe.doseG;
  const toleranceG = input.recipe.doseToleranceG ?? engineDefaults.doseToleranceG;
  // Scales read to 0.1 g: a dose exactly at the tolerance is inside, whatever binary fractions make of it.
  const FLOAT_DUST_G = 1e-9;
  return Math.abs(byG) > toleranceG + FLOAT_DUST_G ? byG : 0;
}

/** Seconds outside the window: 0 inside, negative when too fast. */
export function missOf(timeS: number, window: { min: number; max: number }): number {
  if (timeS < window.min) return timeS - window.min;
  if (timeS > window.max) return timeS - window.max;
  return 0;
}
