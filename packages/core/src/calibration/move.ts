import type { AdviceCase } from './adviceCase.ts';
import { marksFiner, reachableSettings } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import { chanceBetween } from './normal.ts';
import { predict, type ResponseModel } from './responseModel.ts';

/** What is expected of a setting. Seconds are the recipe's normalised shot time. */
export interface Expected {
  setting: number;
  /** Median of the next shot. */
  timeS: number;
  /** 80 % band of the next shot: the doubt of the mean and the noise of a shot. */
  lowS: number;
  highS: number;
  /** Chance that the mean of shots at this setting lies inside the window. */
  inWindow: number;
  /** Sd of the mean's ln T. */
  sd: number;
}

/** What the model expects of one setting. */
export function expectAt(
  model: ResponseModel,
  input: Pick<AdviceCase, 'dial' | 'recipe'>,
  reference: number,
  setting: number,
): Expected {
  const { mean, sd } = predict(model, marksFiner(input.dial, setting, reference));
  const reach = engineDefaults.bandZ * Math.hypot(sd, engineDefaults.shotSd);
  const { min, max } = input.recipe.timeS;
  return {
    setting,
    timeS: Math.exp(mean),
    lowS: Math.exp(mean - reach),
    highS: Math.exp(mean + reach),
    inWindow: chanceBetween(mean, sd, Math.log(min), Math.log(max)),
    sd,
  };
}

/** The reachable setting with the best chance to be inside; of equals, the nearest to `from`. */
export function bestSetting(
  model: ResponseModel,
  input: Pick<AdviceCase, 'dial' | 'recipe'>,
  reference: number,
  from: number,
): Expected {
  const settings = reachableSettings(input.dial, from, engineDefaults.maxMoveSteps);
  // Settings come nearest first, so a farther one must be truly better to win.
  const NEARLY_EQUAL = 1e-9;
  let best = expectAt(model, input, reference, from);
  for (const setting of settings) {
    const candidate = expectAt(model, input, reference, setting);
    if (candidate.inWindow > best.inWindow + NEARLY_EQUAL) best = candidate;
  }
  return best;
}
