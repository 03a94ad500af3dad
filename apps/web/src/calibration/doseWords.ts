import type { Grinder } from '@tempera/contract/bar';
import type { DoseWay, Fill } from '@tempera/core/facts';
import type { ServicePolicy } from '@tempera/core/house';

/** How a house doses while it dials in: whoever grinds by time weighs then. */
export const dialingWay: Record<ServicePolicy['dosing'], DoseWay> = {
  timed: 'scale',
  weighed: 'scale',
  levelled: 'levelled',
  line: 'line',
  eye: 'eye',
};

/** How a dose is known that nobody wrote down before the shot. */
export const unwrittenWay: Record<ServicePolicy['dosing'], DoseWay> = {
  timed: 'timed',
  weighed: 'eye',
  levelled: 'levelled',
  line: 'line',
  eye: 'eye',
};

/** How the dose of a customer's own shot is known: as the house doses while it serves. */
export const servedWay: Record<ServicePolicy['dosing'], DoseWay> = { ...unwrittenWay, weighed: 'scale' };

export const doseWayWord: Record<DoseWay, string> = {
  scale: 'Weighed',
  beans: 'Beans weighed in',
  timed: 'By time, not weighed',
  levelled: 'Struck level',
  line: 'To the line',
  scoop: 'By the scoop',
  eye: 'By eye',
};

const levelledWord: Record<Fill, string> = {
  under: 'Scraped hollow',
  level: 'Level',
  over: 'Settled and refilled',
};
const lineWord: Record<Fill, string> = { under: 'Under the line', level: 'On the line', over: 'Over the line' };

/** What a basket that is so full is called. */
export const fillWord = (way: DoseWay, fill: Fill): string => (way === 'line' ? lineWord : levelledWord)[fill];

/** A step more or less than level where nobody weighed it: about a twenty-fifth of the dose. */
const USUAL_STEP_SHARE = 0.04;

/** Grams in a basket that is filled without a scale: its own where somebody weighed it once, else the recipe's. */
export function filledG(
  { levelG, fillStepG, recipe }: Pick<Grinder, 'levelG' | 'fillStepG' | 'recipe'>,
  fill: Fill,
): number {
  const level = levelG ?? recipe.doseG;
  const step = fillStepG ?? USUAL_STEP_SHARE * level;
  return Math.round(10 * (level + { under: -step, level: 0, over: step }[fill])) / 10;
}
