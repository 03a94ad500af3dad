import { ofKind, stepsOf, type AimKeptStep, type StandingFacts, type StepFact } from '../facts/index.ts';
import type { TasteLever } from '../house/index.ts';

/** The numbers of a recipe that taste may change for the day. */
export interface AimNumbers {
  doseG: number;
  yieldG: number;
  /** Null: the machine's own. */
  tempC: number | null;
  timeMinS: number;
  timeMaxS: number;
}

/**
 * One change for taste; `by` as in `tasteChange`: share of the yield, grams of dose, degC; a window, so many seconds later.
 * A collar move is a fact of its own.
 */
export interface AimChange {
  lever: Exclude<TasteLever, 'grind'> | 'window';
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

/** No instrument of the bar tells more apart. */
export const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Today's aim: the recipe's numbers with what taste changed. */
export const aimAfter = (recipe: AimNumbers, changes: readonly AimChange[]): AimNumbers =>
  changes.reduce<AimNumbers>((aim, { lever, by }) => {
    if (lever === 'yield') return { ...aim, yieldG: tenth(aim.yieldG * (1 + by)) };
    if (lever === 'dose') return { ...aim, doseG: tenth(aim.doseG + by) };
    if (lever === 'window') return { ...aim, timeMinS: tenth(aim.timeMinS + by), timeMaxS: tenth(aim.timeMaxS + by) };
    return { ...aim, tempC: aim.tempC === null ? null : tenth(aim.tempC + by) };
  }, recipe);

/** A shot nearer to its window's edge than this share of the window is one of two outside. */
const MARGIN_SHARE = 0.25;
/** People read a window in half seconds. */
const STEP_S = 0.5;

/**
 * How far a window has to go with a turn of the collar that taste asked for, s: nothing while the cup stays well inside,
 * else just so far that it does. A collar that tongues turned is not turned back by the clock.
 * @param timeS the window that is aimed at now
 * @param fromS what is expected where the collar stands; a cup that was tasted is taken to lie in its window
 * @param toS what is expected where it goes
 * @returns seconds later, in halves; negative: earlier
 */
export function windowShiftS(timeS: { min: number; max: number }, fromS: number, toS: number): number {
  const margin = MARGIN_SHARE * (timeS.max - timeS.min);
  const poured = Math.min(timeS.max, Math.max(timeS.min, fromS)) + toS - fromS;
  const late = poured - (timeS.max - margin);
  const early = poured - (timeS.min + margin);
  if (toS > fromS && late > 0) return Math.ceil(late / STEP_S) * STEP_S;
  if (toS < fromS && early < 0) return Math.floor(early / STEP_S) * STEP_S;
  return 0;
}
