import type { AdviceCase } from './adviceCase.ts';
import { doseMissG } from './doseTolerance.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { CaseFit } from './caseFit.ts';
import { offeredTrim } from './trim.ts';
import { isChoke } from './observationOf.ts';
import { missOf } from './windowMiss.ts';

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
  const doseG = input.recipe.doseG + aimedTrimG(input, fit);
  const byG = doseMissG(shot, input, doseG);
  // A dose that the recipe itself would take is never called wrong for the sake of a trim.
  if (byG !== 0 && doseMissG(shot, input, input.recipe.doseG) !== 0) return { kind: 'doseOff', byG, doseG };
  if (isChoke(shot, input.recipe) || outcome.normalisedS === null) return { kind: 'choked' };
  const normalisedS = atDoseS(outcome.normalisedS, input, fit, aimedTrimG(input, fit));
  return { kind: 'sound', normalisedS, missS: missOf(normalisedS, input.recipe.timeS) };
}

/** Seconds at the recipe's dose, as they are at a trimmed one. */
export function atDoseS(normalisedS: number, { recipe }: Pick<AdviceCase, 'recipe'>, { line }: CaseFit, trimG: number) {
  return normalisedS * ((recipe.doseG + trimG) / recipe.doseG) ** line.doseExponent;
}

/**
 * Grams off the recipe that the last shot was poured for: the trim that was offered before it, or that was in force when the
 * grinder last held, where its dose lies nearer to that than to the recipe's. A trim follows from what was known before the
 * shot, so nobody has to hand it on.
 */
export function aimedTrimG(input: AdviceCase, fit: CaseFit): number {
  const last = input.shots.at(-1);
  if (!last) return input.trimG;
  const before = { line: fit.before, reference: fit.reference, heard: fit.heard.slice(0, -1) };
  const offered = offeredTrim({ ...input, shots: input.shots.slice(0, -1) }, before, last.setting);
  const off = last.doseG - input.recipe.doseG;
  const trims = [input.trimG, offered].filter((trimG) => trimG !== 0);
  return trims.reduce((aim, trimG) => (Math.abs(off - trimG) < Math.abs(off - aim) ? trimG : aim), 0);
}
