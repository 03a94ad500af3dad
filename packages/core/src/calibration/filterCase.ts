import type { AdviceCase, ShotOutcome, CaseShot } from './adviceCase.ts';
import { drift, updateWithShot, type BarModel, type BarShot } from './barModel.ts';
import { emptyChute, grindShot } from './chute.ts';
import type { Chute } from './retention.ts';
import { elapsedVariance } from './elapsed.ts';
import { leaveOneOutWeights } from './observations.ts';
import { observationOf } from './observationOf.ts';

/** One pass over the shots of a case. */
export interface FilteredCase {
  bar: BarModel;
  /** The bar just before the last shot was heard. */
  before: BarModel;
  heard: readonly ShotOutcome[];
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
  /** The coffee in its hopper, where the bar knows more than one on it. */
  coffee: string | null;
  reference: number;
}

/**
 * Hears the shots of a case in order.
 * @param weights of each shot, or null to weigh each by those before it
 */
export function filterCase(
  input: AdviceCase,
  start: BarModel,
  { grinder, coffee, reference }: InBar,
  weights: readonly number[] | null,
  chuteBefore: Chute = emptyChute,
): FilteredCase {
  let bar = start;
  let before = start;
  let chute = chuteBefore;
  let last: CaseShot | null = null;
  let driftedBy = 0;
  const { dial, recipe, retentionG } = input;
  const place = { dial, reference, retentionG, recipeDoseG: recipe.doseG };
  const heard: ShotOutcome[] = [];
  const said: (Said | null)[] = [];
  const driftUntil = (atMs: number | null): void => {
    if (input.nowMs === null || last?.atMs == null || atMs === null) return;
    const variance = elapsedVariance(last.atMs, atMs, input.events);
    driftedBy += variance;
    bar = drift(bar, grinder, variance, 0, coffee);
  };

  input.shots.forEach((shot, index) => {
    driftUntil(shot.atMs);
    before = bar;
    const { ground, after } = grindShot(chute, shot, place);
    chute = after;
    const { told, normalisedS } = observationOf(bar, { grinder, coffee }, recipe, shot, ground);
    let weight = 0;
    if (told) ({ bar, weight } = updateWithShot(bar, told, weights?.[index]));
    said.push(told && { shot: told, weight, driftedBy });
    heard.push({ normalisedS, oldShare: ground.oldShare, weight });
    last = shot.atMs === null ? { ...shot, atMs: last?.atMs ?? null } : shot;
  });
  driftUntil(input.nowMs);
  return { bar, before, heard, said, driftedBy };
}

/** Weights of the shots of a case by what all the others say; null when they are the weights that the shots already had. */
export function caseWeights({ said, bar, driftedBy }: FilteredCase): readonly number[] | null {
  return leaveOneOutWeights(
    bar,
    said.map((entry) => entry && { ...entry, driftedSince: driftedBy - entry.driftedBy }),
  );
}
