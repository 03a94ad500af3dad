import type { CaseShot, RecipeTarget } from './adviceCase.ts';
import { knownOf, responseOf, type BarModel, type BarShot } from './barModel.ts';
import type { Ground } from './chute.ts';
import { normalisedTime } from './normalisedTime.ts';

/** The shot as an observation of the bar; a channel or a flawed puck says nothing about the grind. */
export function observationOf(
  bar: BarModel,
  { grinder, coffee }: { grinder: string; coffee: string | null },
  recipe: RecipeTarget,
  shot: CaseShot,
  ground: Ground,
): { told: BarShot | null; normalisedS: number | null } {
  if (shot.fault === 'channel' || shot.fault === 'prep') return { told: null, normalisedS: null };
  // Only a blend needs to know what a mark is worth.
  const response = ground.sd === 0 ? 0 : (knownOf(bar, responseOf(grinder))?.mean ?? 0);
  const blendVariance = (response * ground.sd) ** 2;
  const { measured } = shot;
  const seen = {
    grinder,
    coffee,
    group: shot.group,
    by: shot.by ?? null,
    x: ground.x,
    ...(measured ? { measured } : {}),
  };
  if (isChoke(shot, recipe)) {
    const lnDose = Math.log(shot.doseG / recipe.doseG);
    const told = { ...seen, lnTimeS: Math.log(shot.timeS), lnDose, addedVariance: blendVariance, choked: true };
    return { told, normalisedS: null };
  }
  const { lnAtYieldS, lnDose, correctionVariance, normalisedS } = normalisedTime(shot, recipe);
  const addedVariance = correctionVariance + blendVariance;
  return { told: { ...seen, lnTimeS: lnAtYieldS, lnDose, addedVariance, choked: false }, normalisedS };
}

/** Less than this share of the yield, after this much more than the window, is a choke whether or not somebody flagged it. */
const CHOKE_YIELD_SHARE = 0.5;
const CHOKE_TIME_FACTOR = 1.2;

/** Whether a shot choked: flagged, or little in the cup after much more than the window. A bound, and no number. */
export const isChoke = (
  shot: Pick<CaseShot, 'fault' | 'yieldG' | 'timeS'>,
  recipe: Pick<RecipeTarget, 'yieldG' | 'timeS'>,
): boolean =>
  shot.fault === 'choke' ||
  (shot.fault === null &&
    shot.yieldG < CHOKE_YIELD_SHARE * recipe.yieldG &&
    shot.timeS > CHOKE_TIME_FACTOR * recipe.timeS.max);
