import type { UpkeepKind } from '../facts/index.ts';
import { addDays, daysBetween } from '../house/index.ts';
import { mean } from '../numbers/index.ts';

/** Something that is kept up: by the calendar, by what went through, or as the house did it so far. */
export interface UpkeepItem {
  what: UpkeepKind;
  stationId: string;
  /** Due so long after it was last done; null: not by the calendar. */
  months: number | null;
  /** Due after so much went through, l or kg; null: not by count. */
  count: number | null;
  /** When it was last done; null: nobody knows. */
  lastOn: string | null;
  /** Who did it then; null: nobody wrote it down. */
  lastBy: string | null;
  /** What went through since; null: not counted. */
  counted: number | null;
  perDay: number | null;
  /** Days between the times it was done before, oldest first. */
  gapsDays: readonly number[];
}

/** How it stands. Unknown: nobody wrote down when it was last done. */
export interface UpkeepState {
  item: UpkeepItem;
  state: 'fine' | 'soon' | 'due' | 'unknown';
  /** The day on which it falls due, at the pace so far; null where nothing tells. */
  dueOn: string | null;
  /** What makes it due first. */
  by: 'calendar' | 'count' | 'habit' | null;
  /** What the count has left, never below 0; null where nothing is counted. */
  left: number | null;
}

const DAYS_A_MONTH = 365.25 / 12;
/** So many days before it falls due it is said. */
const SOON_DAYS = 7;
/** A house has a habit once it did a thing twice. */
const LEAST_GAPS = 1;

/**
 * When something that is kept up falls due: by its months or its count, whichever comes first. The count goes on at the
 * pace of the days since. Where the house wrote down no rule, its own habit is one: the mean of the days between; a stated
 * rule is never stretched by having been late.
 * @param today the café's business day
 */
export function upkeepState(item: UpkeepItem, today: string): UpkeepState {
  const { lastOn, months, count, counted, perDay, gapsDays } = item;
  const left = count === null || counted === null ? null : Math.max(0, count - counted);
  const byCount =
    left === null ? null : left === 0 ? today : perDay && perDay > 0 ? addDays(today, Math.floor(left / perDay)) : null;
  const byCalendar = lastOn === null || months === null ? null : addDays(lastOn, Math.round(months * DAYS_A_MONTH));
  const noRule = months === null && count === null;
  const byHabit =
    noRule && lastOn !== null && gapsDays.length >= LEAST_GAPS ? addDays(lastOn, Math.round(mean(gapsDays))) : null;
  const first = (
    [
      ['calendar', byCalendar],
      ['count', byCount],
      ['habit', byHabit],
    ] as const
  )
    .flatMap(([by, dueOn]) => (dueOn === null ? [] : [{ by, dueOn }]))
    .toSorted((a, b) => a.dueOn.localeCompare(b.dueOn))[0];
  if (!first) {
    // What is counted and far from its end is fine, however little is known of the pace.
    const known = left !== null || noRule;
    return { item, state: known ? 'fine' : 'unknown', dueOn: null, by: null, left };
  }
  const days = daysBetween(today, first.dueOn);
  return { item, state: days <= 0 ? 'due' : days <= SOON_DAYS ? 'soon' : 'fine', ...first, left };
}

/** Everything that is kept up, what falls due first. */
export function upkeepStates(items: readonly UpkeepItem[], today: string): UpkeepState[] {
  const rank = { due: 0, soon: 1, unknown: 2, fine: 3 };
  return items
    .map((item) => upkeepState(item, today))
    .toSorted((a, b) => rank[a.state] - rank[b.state] || (a.dueOn ?? '9999').localeCompare(b.dueOn ?? '9999'));
}

/** Work that only a licensed technician does: it is recorded here, and nothing more. */
export const isLicensed = (what: UpkeepKind): boolean => what === 'descaling' || what === 'service';

/** Water that a cup takes beside itself: flushes, rinses and what is drained, ml. */
const FLUSHED_ML = 60;
const ML_PER_L = 1_000;

/** Litres that are drawn for so much coffee: each shot its yield and its flushes. */
export function litresDrawn(coffeeG: number, recipe: { doseG: number; yieldG: number }): number {
  const shots = coffeeG / recipe.doseG;
  return (shots * (recipe.yieldG + FLUSHED_ML)) / ML_PER_L;
}
