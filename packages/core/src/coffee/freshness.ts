import { MS_PER_DAY } from '../numbers/index.ts';

/** When a coffee is good, in days since its roast. */
export interface FreshWindow {
  /** Until then it is too fresh. */
  restDays: number;
  /** Until then it is at its best. */
  primeDays: number;
  /** From then on it is past serving. */
  fadeDays: number;
}

/** The trade's usual window, for coffees that name none. */
export const usualWindow: FreshWindow = { restDays: 4, primeDays: 14, fadeDays: 28 };

/** A stay in the freezer, from the noon of a day to that of another, the hour being unknown; `toMs` null while it lasts. */
export interface Freeze {
  fromMs: number;
  toMs: number | null;
}

export interface RoastedBag {
  roastedAtMs: number;
  freezes: readonly Freeze[];
}

/** In the freezer the clock all but stands still. */
const FROZEN_CLOCK = 0.03;
/** Freezing and thawing itself costs a day or two. */
const THAW_COSTS_DAYS = 1.5;
/** A roast date is a day, not an hour. */
export const AGE_DOUBT_DAYS = 0.5;

/** What was put in or taken out today is in or out, though its noon is still to come. */
const hasCome = (noonMs: number, nowMs: number): boolean => noonMs - MS_PER_DAY / 2 <= nowMs;

/**
 * How old a coffee is as it drinks, days: time since the roast, frozen time counted at 3 %, and a day and a half for
 * each thaw. Never negative.
 */
export function ageDays({ roastedAtMs, freezes }: RoastedBag, nowMs: number): number {
  const elapsed = (nowMs - roastedAtMs) / MS_PER_DAY;
  const saved = freezes.reduce((sum, { fromMs, toMs }) => {
    const until = Math.min(toMs ?? nowMs, nowMs);
    return sum + Math.max(0, until - fromMs) / MS_PER_DAY;
  }, 0);
  const thaws = freezes.filter(({ toMs }) => toMs !== null && hasCome(toMs, nowMs)).length;
  return Math.max(0, elapsed - saved * (1 - FROZEN_CLOCK) + thaws * THAW_COSTS_DAYS);
}

const isFrozen = ({ freezes }: RoastedBag, nowMs: number): boolean =>
  freezes.some(({ fromMs, toMs }) => hasCome(fromMs, nowMs) && (toMs === null || !hasCome(toMs, nowMs)));

export type FreshState = 'frozen' | 'resting' | 'prime' | 'fading' | 'past';

export interface Freshness {
  ageDays: number;
  state: FreshState;
  /** Days until the next state at this pace; null in the last one and in the freezer. */
  daysToNext: number | null;
}

/** Where a bag stands in its window. */
export function freshnessOf(bag: RoastedBag, window: FreshWindow, nowMs: number): Freshness {
  const age = ageDays(bag, nowMs);
  if (isFrozen(bag, nowMs)) return { ageDays: age, state: 'frozen', daysToNext: null };
  const { restDays, primeDays, fadeDays } = window;
  if (age < restDays) return { ageDays: age, state: 'resting', daysToNext: restDays - age };
  if (age < primeDays) return { ageDays: age, state: 'prime', daysToNext: primeDays - age };
  if (age < fadeDays) return { ageDays: age, state: 'fading', daysToNext: fadeDays - age };
  return { ageDays: age, state: 'past', daysToNext: null };
}

/** How long a coffee keeps in an open bag or a hopper, hours. */
export interface OpenLimits {
  openBestH: number;
  openStaleH: number;
}

/** The trade's usual hours, for coffees that name none. */
export const usualOpenLimits: OpenLimits = { openBestH: 12, openStaleH: 16 };

/** How an opened bag stands: at its best, going, or open too long. */
export function openedState(
  openedH: number,
  { openBestH, openStaleH }: OpenLimits = usualOpenLimits,
): 'best' | 'going' | 'stale' {
  if (openedH <= openBestH) return 'best';
  return openedH <= openStaleH ? 'going' : 'stale';
}
