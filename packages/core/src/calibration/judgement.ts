import type { AdviceCase } from './adviceCase.ts';
import { doseMissG } from './doseTolerance.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { CaseFit } from './caseFit.ts';
import { fitCase } from './fitCase.ts';
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

/** So many shots back it is asked which dose was meant: a bar that always doses so is off by its recipe's word. */
const MOST_BACK = 6;

/**
 * Grams off the recipe that the last shot was poured for: the trim that was asked for before it, or that was in force when the
 * grinder last held, where its dose lies nearer to that than to the recipe's. A trim follows from what was known before the
 * shot, so nobody has to hand it on. @param lookBack shots before the last that are asked which dose they were poured for
 */
export function aimedTrimG(input: AdviceCase, fit: CaseFit, lookBack = MOST_BACK): number {
  const last = input.shots.at(-1);
  if (!last) return input.trimG;
  const before = { line: fit.before, reference: fit.reference, heard: fit.heard.slice(0, -1) };
  const offered = offeredTrim({ ...input, shots: input.shots.slice(0, -1) }, before, last.setting);
  const off = last.doseG - input.recipe.doseG;
  const nearer = (aim: number, trimG: number): number => (Math.abs(off - trimG) < Math.abs(off - aim) ? trimG : aim);
  const aim = [input.trimG, offered].reduce(nearer, 0);
  if (doseMissG(last, input, input.recipe.doseG + aim) === 0) return aim;
  return lookBack === 0 ? aim : nearer(aim, askedBefore(input, last.setting, lookBack - 1));
}

/**
 * The trim that the advice before the last shot asked for, word for word: as it was offered then, or as the shot before was poured,
 * since whoever was asked for another dose goes on with it until told otherwise.
 */
function askedBefore(input: AdviceCase, setting: number, lookBack: number): number {
  const shots = input.shots.slice(0, -1);
  const before = shots.at(-1);
  if (!before) return 0;
  const then = { ...input, shots, nowMs: before.atMs ?? input.nowMs };
  const fit = fitCase(then, setting);
  const offered = offeredTrim(then, fit, setting);
  return offered !== 0 || before.setting !== setting ? offered : aimedTrimG(then, fit, lookBack);
}
