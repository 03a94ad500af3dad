import { usual, FLOAT_DUST } from '../numbers/index.ts';
import type { AdviceCase, CaseShot } from './adviceCase.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { CaseFit } from './caseFit.ts';
import { bestTrim } from './move.ts';

/** What the last shot is worth, before anyone touches the collar. The first that applies wins. */
export type Judgement =
  | { kind: 'noShot' }
  | { kind: 'moved'; to: number }
  | { kind: 'notPurged'; oldShare: number }
  | { kind: 'noEvidence'; fault: 'channel' | 'prep' }
  | { kind: 'choked' }
  | { kind: 'doseOff'; byG: number; doseG: number }
  | { kind: 'sound'; normalisedS: number; missS: number };

/** Judges the last shot of a case, in the order: moved since, not purged, no evidence, dose, time. */
export function judgeLast(input: AdviceCase, fit: CaseFit): Judgement {
  const shot = input.shots.at(-1);
  const outcome = fit.heard.at(-1);
  if (!shot || !outcome) return { kind: 'noShot' };
  if (input.standsAt !== null && input.standsAt !== shot.setting) return { kind: 'moved', to: input.standsAt };
  if (outcome.oldShare > engineDefaults.oldShareNotPurged) return { kind: 'notPurged', oldShare: outcome.oldShare };
  if (shot.fault === 'channel' || shot.fault === 'prep') return { kind: 'noEvidence', fault: shot.fault };
  const doseG = askedDoseG(input, fit);
  const byG = doseMissG(shot, input, doseG);
  // A dose that the recipe itself would take is never called wrong for the sake of a trim.
  if (byG !== 0 && doseMissG(shot, input, input.recipe.doseG) !== 0) return { kind: 'doseOff', byG, doseG };
  if (shot.fault === 'choke' || outcome.normalisedS === null) return { kind: 'choked' };
  return { kind: 'sound', normalisedS: outcome.normalisedS, missS: missOf(outcome.normalisedS, input.recipe.timeS) };
}

/**
 * The dose that the last shot was asked for: the recipe's, or the one trimmed between two marks. A trim follows from what
 * was known before the shot, so nobody has to hand it on.
 */
function askedDoseG(input: AdviceCase, fit: CaseFit): number {
  const { recipe, shots } = input;
  const last = shots.at(-1);
  const previous = shots.at(-2);
  if (!previous) return recipe.doseG + input.trimG;
  if (previous.setting !== last?.setting) return recipe.doseG;
  const before = { line: fit.before, reference: fit.reference };
  return recipe.doseG + bestTrim(before, input, last.setting).trimG;
}

/** Grams outside the tolerance about `askedG`: 0 inside; otherwise the whole deviation, signed. */
function doseMissG(shot: Pick<CaseShot, 'doseG'>, input: Pick<AdviceCase, 'recipe'>, askedG: number): number {
  const byG = shot.doseG - askedG;
  const toleranceG = input.recipe.doseToleranceG ?? usual.doseToleranceG;
  return Math.abs(byG) > toleranceG + FLOAT_DUST ? byG : 0;
}

/** Whether a shot's dose is near enough to the recipe's, trimmed or not, to speak for the setting. */
export function doseSound(shot: Pick<CaseShot, 'doseG'>, input: Pick<AdviceCase, 'recipe'>): boolean {
  const most = Math.max(...engineDefaults.trimsG);
  const toleranceG = input.recipe.doseToleranceG ?? usual.doseToleranceG;
  return Math.abs(shot.doseG - input.recipe.doseG) <= toleranceG + most;
}

/** Times are read in tenths: a miss that would be written as 0.0 s is none. */
const LEAST_MISS_S = 0.05;

/** Seconds outside the window: 0 inside, negative when too fast. */
export function missOf(timeS: number, window: { min: number; max: number }): number {
  const miss = timeS < window.min ? timeS - window.min : Math.max(0, timeS - window.max);
  return Math.abs(miss) < LEAST_MISS_S ? 0 : miss;
}
