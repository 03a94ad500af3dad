import type { AdviceCase, RecipeTarget } from './adviceCase.ts';
import type { GrinderPrior } from './barModel.ts';
import { engineDefaults } from './engineDefaults.ts';
import { lnOfTexture } from './texture.ts';
import type { Texture } from '../facts/index.ts';
import { windowMiddleS } from './windowMiddle.ts';

/** Variance of ln T that a grinder gained since it last held its window; that of never, when it never did. */
export function varianceSince(since: AdviceCase['since']): number {
  const d = engineDefaults;
  // Another coffee is as good as never: only what a mark is worth carries over.
  if (since === null || since.newCoffee) return d.levelSdNever ** 2;
  const wandered = d.driftSdPerRootHour ** 2 * since.hours + (since.newBag ? d.newBagSd ** 2 : 0);
  return Math.min(wandered, d.levelSdNever ** 2);
}

/**
 * What is believed of a grinder before its first shot: a mark is worth what the house says, give or take 30 %, and it
 * stands where it last held.
 * @param held the normalised time at which it last held, and how surely; null: the window's middle
 * @param felt how its grounds felt, x marks finer than the reference, where it never held: that says more than nothing
 */
export function priorOf(
  grinder: { recipe: RecipeTarget; secondsPerMark: number | null },
  since: AdviceCase['since'],
  held: { timeS: number; sd?: number } | null,
  felt: { x: number; texture: Texture } | null = null,
): GrinderPrior {
  const d = engineDefaults;
  const middleS = windowMiddleS(grinder.recipe.timeS);
  const { secondsPerMark } = grinder;
  const response = secondsPerMark === null ? d.responseUnknown : secondsPerMark / middleS;
  const relativeSd = secondsPerMark === null ? d.responseUnknownRelativeSd : d.responseRelativeSd;
  const atLock = since === null ? 0 : (held?.sd ?? d.levelSdAtLock) ** 2;
  if (felt && since === null) {
    const level = Math.log(middleS) + lnOfTexture(felt.texture) - response * felt.x;
    return { level, levelSd: d.textureLnSd, response, responseSd: relativeSd * response };
  }
  return {
    level: Math.log(held?.timeS ?? middleS),
    levelSd: Math.min(Math.sqrt(varianceSince(since) + atLock), d.levelSdNever),
    response,
    responseSd: relativeSd * response,
  };
}
