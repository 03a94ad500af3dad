import { freshnessIn, freshWord, nextBags } from './fresh.ts';
import { useStock } from './queries.ts';

/** A bag as the opening speaks of it. */
interface HopperBag {
  coffee: string;
  roastedOn: string;
  word: string;
  past: boolean;
}

/** What is in a hopper, and what would go in next; null where nobody knows. */
export function useHopper(
  grinderId: string,
  coffeeId: string,
  timeZone: string,
  nowMs: number,
): { now: HopperBag | null; next: HopperBag | null } {
  const { data: stock } = useStock();
  if (!stock) return { now: null, next: null };
  const inIt = stock.bags.find((bag) => bag.state === 'hopper' && bag.grinderId === grinderId);
  const fresh = inIt && freshnessIn(stock, inIt, timeZone, nowMs);
  const first = nextBags(stock, coffeeId, timeZone, nowMs)[0];
  return {
    now:
      inIt && fresh
        ? {
            coffee: inIt.coffee,
            roastedOn: inIt.sheet.roastedOn,
            word: freshWord(fresh).toLowerCase(),
            past: fresh.state === 'past',
          }
        : null,
    next: first
      ? {
          coffee: first.bag.kept.coffee,
          roastedOn: first.bag.kept.sheet.roastedOn,
          word: freshWord(first.freshness).toLowerCase(),
          past: first.freshness.state === 'past',
        }
      : null,
  };
}
