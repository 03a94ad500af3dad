import { ofKind, stepsOf, type StandingFacts } from '../facts/index.ts';
import type { TasteLever } from '../house/index.ts';

/** The numbers of a recipe that taste may change for the day; a window stays as it is. */
export interface AimNumbers {
  doseG: number;
  yieldG: number;
  /** Null: the machine's own. */
  tempC: number | null;
}

/** One change for taste; `by` as in `tasteChange`: share of the yield, grams of dose, degC. A collar move is a fact of its own. */
export interface AimChange {
  lever: Exclude<TasteLever, 'grind'>;
  by: number;
}

/** What taste changed at a grinder since the day began, in its order; a coffee that went in since begins anew. */
export function aimChangesOf(facts: StandingFacts, grinderId: string, dayFromMs: number): AimChange[] {
  const otherCoffee = ofKind(facts, 'newBag').findLast((bag) => bag.grinderId === grinderId && bag.body.otherCoffee);
  const fromMs = Math.max(dayFromMs, otherCoffee ? Date.parse(otherCoffee.at) : 0);
  return stepsOf(facts, 'tasteSettled').flatMap(({ at, body: { grinderId: tasted, change } }) => {
    if (tasted !== grinderId || Date.parse(at) < fromMs || change === null || change.lever === 'grind') return [];
    return [{ lever: change.lever, by: change.by }];
  });
}

const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Today's aim: the recipe's numbers with what taste changed. */
export const aimAfter = (recipe: AimNumbers, changes: readonly AimChange[]): AimNumbers =>
  changes.reduce<AimNumbers>((aim, { lever, by }) => {
    if (lever === 'yield') return { ...aim, yieldG: tenth(aim.yieldG * (1 + by)) };
    if (lever === 'dose') return { ...aim, doseG: tenth(aim.doseG + by) };
    return { ...aim, tempC: aim.tempC === null ? null : tenth(aim.tempC + by) };
  }, recipe);
