import { freshnessOf, type Freshness, type FreshState, type FreshWindow, type RoastedBag } from './freshness.ts';

export interface StockBag extends RoastedBag {
  id: string;
  window: FreshWindow;
  /** Null while it is closed. */
  openedAtMs: number | null;
}

export interface RankedBag<T> {
  bag: T;
  freshness: Freshness;
}

/** What can be poured now comes first, the rest after how soon it can be. */
const order: Record<FreshState, number> = { fading: 0, prime: 0, resting: 1, past: 2, frozen: 3 };

/**
 * In which order bags of one coffee should be used: an open one first, then the first to fade. What still rests waits;
 * what is past comes after it, for a person to decide; the freezer is last.
 */
export function bagsInOrder<T extends StockBag>(bags: readonly T[], nowMs: number): RankedBag<T>[] {
  return bags
    .map((bag) => ({ bag, freshness: freshnessOf(bag, bag.window, nowMs) }))
    .toSorted(
      (a, b) =>
        order[a.freshness.state] - order[b.freshness.state] ||
        Number(a.bag.openedAtMs === null) - Number(b.bag.openedAtMs === null) ||
        daysLeft(a) - daysLeft(b) ||
        a.bag.id.localeCompare(b.bag.id),
    );
}

const daysLeft = <T extends StockBag>({ bag, freshness }: RankedBag<T>): number =>
  bag.window.fadeDays - freshness.ageDays;
