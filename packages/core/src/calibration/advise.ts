import type { AdviceCase } from './adviceCase.ts';
import type { Advice, AdviceAction } from './advice.ts';
import { decide } from './decide.ts';
import { directionOf, marksFiner } from './dial.ts';
import { fitCase } from './fitCase.ts';
import { judgeLast } from './judgement.ts';
import type { Expected } from './move.ts';
import { nextCheckMin } from './nextCheck.ts';
import { reasonsFor } from './reasons.ts';

/**
 * What to do after the shots of a case: judgement first, then dose, move, repeat or lock. Pure: the same case gives the
 * same advice. With no shots it says where to start.
 */
export function advise(input: AdviceCase): Advice {
  const from = input.standsAt ?? input.shots.at(-1)?.setting ?? 0;
  const fit = fitCase(input, from);
  const judgement = judgeLast(input, fit);
  const { action, expected, here, purgeG, beyondDial, weighed, closeEnough, because } = decide(
    input,
    fit,
    judgement,
    from,
  );
  const advice: Omit<Advice, 'reasons'> = {
    action,
    from,
    setting: expected.setting,
    marks: Math.abs(marksFiner(input.dial, expected.setting, from)),
    direction: directionOf(input.dial, from, expected.setting),
    purgeG,
    doseG: doseToWeighG(input, action, expected),
    predicted: expected,
    here,
    nextCheckMin: nextCheckMin(expected, input),
    judgement,
    beyondDial,
    weighed,
    closeEnough,
    because,
    fit,
  };
  return { ...advice, reasons: reasonsFor(input, fit, advice) };
}

/** The dose to weigh from now on, when it is not simply the recipe's; after a dose that was off it is always named. */
function doseToWeighG({ recipe }: AdviceCase, action: AdviceAction, { trimG }: Expected): number | null {
  if (trimG === 0 && action !== 'dose') return null;
  return Math.round((recipe.doseG + trimG) * 100) / 100;
}
