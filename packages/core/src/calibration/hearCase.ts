import type { AdviceCase, HeardShot } from './adviceCase.ts';
import { drift, hearShot, knownOf, missOfShot, responseOf, type BarModel, type BarShot } from './barModel.ts';
import { marksFiner } from './dial.ts';
import { elapsedVariance } from './elapsed.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { HeardOutcome } from './learned.ts';
import { normalisedTime } from './normalisedTime.ts';
import { grindThrough, oldShare, oldShareSd, purgeAdviceG } from './retention.ts';
import { weightOf } from './shotNoise.ts';

/** One pass over the shots of a case. */
export interface Hearing {
  bar: BarModel;
  /** The bar just before the last shot was heard. */
  before: BarModel;
  heard: readonly HeardOutcome[];
  /** What each shot said to the bar; null where it said nothing. */
  said: readonly (Said | null)[];
  /** Variance that the grinder's level gained over the whole case. */
  driftedBy: number;
}

interface Said {
  shot: BarShot;
  weight: number;
  /** Variance that the grinder's level gained from the start of the case until then. */
  driftedBy: number;
}

interface InBar {
  grinder: string;
  reference: number;
}

/**
 * Hears the shots of a case in order.
 * @param weights of each shot, or null to weigh each by those before it
 */
export function hearCase(
  input: AdviceCase,
  start: BarModel,
  { grinder, reference }: InBar,
  weights: readonly number[] | null,
): Hearing {
  let bar = start;
  let before = start;
  let held: { x: number } | null = null;
  let last: HeardShot | null = null;
  let driftedBy = 0;
  const retentionG = input.retentionG ?? engineDefaults.retentionUnknownG;
  const heard: HeardOutcome[] = [];
  const said: (Said | null)[] = [];
  const driftUntil = (atMs: number | null): void => {
    if (input.nowMs === null || last?.atMs == null || atMs === null) return;
    const variance = elapsedVariance(last.atMs, atMs, input.events);
    driftedBy += variance;
    bar = drift(bar, grinder, variance);
  };

  input.shots.forEach((shot, index) => {
    driftUntil(shot.atMs);
    before = bar;
    const x = marksFiner(input.dial, shot.setting, reference);
    const moved = last !== null && last.setting !== shot.setting;
    const purgedG = shot.purgedG ?? (moved ? purgeAdviceG(input.recipe.doseG, input.retentionG) : 0);
    held ??= { x };
    const share = oldShare(shot.doseG, purgedG, retentionG);
    const blend = {
      x: x + (held.x - x) * share,
      marksSd: Math.abs(held.x - x) * oldShareSd(shot.doseG, purgedG, input.retentionG),
    };
    const { told, normalisedS } = whatItSays(bar, grinder, input, shot, blend);
    let weight = 0;
    if (told) ({ bar, weight } = hearShot(bar, told, weights?.[index]));
    said.push(told && { shot: told, weight, driftedBy });
    heard.push({ normalisedS, oldShare: moved ? share : 0, weight });
    held = grindThrough(held, x, purgedG + shot.doseG, retentionG);
    last = shot.atMs === null ? { ...shot, atMs: last?.atMs ?? null } : shot;
  });
  driftUntil(input.nowMs);
  return { bar, before, heard, said, driftedBy };
}

/** The shot as an observation of the bar; a channel or a flawed puck says nothing about the grind. */
function whatItSays(
  bar: BarModel,
  grinder: string,
  { recipe }: AdviceCase,
  shot: HeardShot,
  blend: { x: number; marksSd: number },
): { told: BarShot | null; normalisedS: number | null } {
  if (shot.fault === 'channel' || shot.fault === 'prep') return { told: null, normalisedS: null };
  const response = knownOf(bar, responseOf(grinder))?.mean ?? 0;
  const blendVariance = (response * blend.marksSd) ** 2;
  const seen = { grinder, group: shot.group, x: blend.x };
  if (shot.fault === 'choke') {
    const lnDose = Math.log(shot.doseG / recipe.doseG);
    const told = { ...seen, lnTimeS: Math.log(shot.timeS), lnDose, addedVariance: blendVariance, choked: true };
    return { told, normalisedS: null };
  }
  const { lnAtYieldS, lnDose, correctionVariance, normalisedS } = normalisedTime(shot, recipe);
  const addedVariance = correctionVariance + blendVariance;
  return { told: { ...seen, lnTimeS: lnAtYieldS, lnDose, addedVariance, choked: false }, normalisedS };
}

/** Below this change in weight another round tells nothing new. */
const SAME_WEIGHT = 0.05;

/**
 * Weights of the shots by what all the others say: each against the bar without it.
 * @returns null when they are the weights that the shots already had
 */
export function reweigh({ said, bar, driftedBy }: Hearing): readonly number[] | null {
  const weights = said.map((entry) => {
    if (!entry || entry.shot.choked) return 1;
    const { residual, variance } = missOfShot(bar, entry.shot, entry.weight, driftedBy - entry.driftedBy);
    return weightOf(residual, variance);
  });
  const changed = said.some((entry, i) => entry !== null && Math.abs((weights[i] ?? 1) - entry.weight) > SAME_WEIGHT);
  return changed ? weights : null;
}
