import { ofKind, stepsOf, type AimKeptStep, type StandingFacts, type StepFact } from '../facts/index.ts';
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

/** When another coffee went into the hopper last, ms since the epoch; 0 where none did. */
function otherCoffeeMs(facts: StandingFacts, grinderId: string): number {
  const bag = ofKind(facts, 'newBag').findLast((fact) => fact.grinderId === grinderId && fact.body.otherCoffee);
  return bag ? Date.parse(bag.at) : 0;
}

/** The aim that was kept for this day on the day before; null where none was, or another coffee went in since. */
export function aimKeptFor(facts: StandingFacts, grinderId: string, dayFromMs: number): StepFact<AimKeptStep> | null {
  const kept = stepsOf(facts, 'aimKept').findLast(
    ({ at, body }) =>
      body.grinderId === grinderId && Date.parse(at) < dayFromMs && Date.parse(body.holdsUntil) > dayFromMs,
  );
  return kept && Date.parse(kept.at) > otherCoffeeMs(facts, grinderId) ? kept : null;
}

/** As many days running make an aim a habit: then it is the recipe that should be written anew. */
export const DAYS_TO_A_VERSION = 3;

/** How many days an aim has held by now, today among them: 0 where the recipe stands as it is written. */
export function daysOfAim(facts: StandingFacts, grinderId: string, dayFromMs: number): number {
  if (aimChangesOf(facts, grinderId, dayFromMs).length === 0) return 0;
  return aimKeptFor(facts, grinderId, dayFromMs)?.body.days ?? 1;
}

/** What taste changed at a grinder: what was kept for today, then what changed since the day began; another coffee begins anew. */
export function aimChangesOf(facts: StandingFacts, grinderId: string, dayFromMs: number): AimChange[] {
  const fromMs = Math.max(dayFromMs, otherCoffeeMs(facts, grinderId));
  const kept = aimKeptFor(facts, grinderId, dayFromMs)?.body.changes ?? [];
  const today = stepsOf(facts, 'tasteSettled').flatMap(({ at, body: { grinderId: tasted, change } }) => {
    if (tasted !== grinderId || Date.parse(at) < fromMs || change === null || change.lever === 'grind') return [];
    return [{ lever: change.lever, by: change.by }];
  });
  return [...kept, ...today];
}

const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Today's aim: the recipe's numbers with what taste changed. */
export const aimAfter = (recipe: AimNumbers, changes: readonly AimChange[]): AimNumbers =>
  changes.reduce<AimNumbers>((aim, { lever, by }) => {
    if (lever === 'yield') return { ...aim, yieldG: tenth(aim.yieldG * (1 + by)) };
    if (lever === 'dose') return { ...aim, doseG: tenth(aim.doseG + by) };
    return { ...aim, tempC: aim.tempC === null ? null : tenth(aim.tempC + by) };
  }, recipe);
