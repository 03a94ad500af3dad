import type { AdviceCase, RecipeTarget } from './adviceCase.ts';
import type { GrinderPrior } from './barModel.ts';
import type { Dial } from './dial.ts';
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

/** What is asked of a grinder to say what a mark of its dial is commonly worth. */
interface AskedOfDial {
  recipe: RecipeTarget;
  secondsPerMark: number | null;
  dial: Pick<Dial, 'stepMarks'>;
}

/** What a mark finer is worth in ln T before any shot: by the house's word, or as dials are made, where a click of several numbers is worth what a mark is elsewhere. */
export function usualResponse({ recipe, secondsPerMark, dial }: AskedOfDial): number {
  if (secondsPerMark !== null) return secondsPerMark / windowMiddleS(recipe.timeS);
  return engineDefaults.responseUnknown / Math.max(1, dial.stepMarks);
}

/**
 * What is believed of a grinder before its first shot: a mark is worth what the house says, give or take 30 %, and it
 * stands where it last held.
 * @param held the normalised time at which it last held, and how surely; null: the window's middle
 * @param felt how its grounds felt, x marks finer than the reference, where it never held: that says more than nothing
 */
export function priorOf(
  grinder: AskedOfDial,
  since: AdviceCase['since'],
  held: { timeS: number; sd?: number } | null,
  felt: { x: number; texture: Texture } | null = null,
): GrinderPrior {
  const d = engineDefaults;
  const middleS = windowMiddleS(grinder.recipe.timeS);
  const { secondsPerMark } = grinder;
  const response = usualResponse(grinder);
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
