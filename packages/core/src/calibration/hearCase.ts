import type { AdviceCase, HeardShot } from './adviceCase.ts';
import { drift, hearShot, missOfShot, type BarModel, type BarShot } from './barModel.ts';
import { emptyChute, grindShot } from './chute.ts';
import { elapsedVariance } from './elapsed.ts';
import type { HeardOutcome } from './learned.ts';
import { weightOf } from './shotNoise.ts';
import { whatItSays } from './whatItSays.ts';

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
  let chute = emptyChute;
  let last: HeardShot | null = null;
  let driftedBy = 0;
  const { dial, recipe, retentionG } = input;
  const place = { dial, reference, retentionG, recipeDoseG: recipe.doseG };
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
    const { ground, after } = grindShot(chute, shot, place);
    chute = after;
    const { told, normalisedS } = whatItSays(bar, grinder, recipe, shot, ground);
    let weight = 0;
    if (told) ({ bar, weight } = hearShot(bar, told, weights?.[index]));
    said.push(told && { shot: told, weight, driftedBy });
    heard.push({ normalisedS, oldShare: ground.oldShare, weight });
    last = shot.atMs === null ? { ...shot, atMs: last?.atMs ?? null } : shot;
  });
  driftUntil(input.nowMs);
  return { bar, before, heard, said, driftedBy };
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
