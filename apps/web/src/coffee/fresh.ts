import { roastedBagOf } from '@tempera/contract/bagAge';
import type { Bag, CoffeeSheet, Stock } from '@tempera/contract/coffee';
import {
  bagsInOrder,
  freshnessOf,
  openedState,
  openHours,
  usualOpenLimits,
  type OpenLimits,
  type Freeze,
  type Freshness,
  type RankedBag,
  type StockBag,
} from '@tempera/core/coffee';
import type { Calendar } from '@tempera/core/house';

export interface KnownBag extends StockBag {
  kept: Bag;
}

/** A bag as the freshness reckoning wants it, by the café's own clock. */
function knownBag(bag: Bag, window: CoffeeSheet, timeZone: string): KnownBag {
  return {
    id: bag.id,
    kept: bag,
    window,
    ...roastedBagOf(bag.sheet, timeZone),
    openedAtMs: bag.openedAt === null ? null : Date.parse(bag.openedAt),
  };
}

/** How fresh a bag of the stock is; null when its coffee is not known. */
export function freshnessIn(stock: Stock, bag: Bag, timeZone: string, nowMs: number): Freshness | null {
  const coffee = stock.coffees.find(({ id }) => id === bag.sheet.coffeeId);
  return coffee ? freshnessOf(knownBag(bag, coffee.sheet, timeZone), coffee.sheet, nowMs) : null;
}

/** The bags of a coffee that could go into a hopper, the one to take first first. */
export function nextBags(stock: Stock, coffeeId: string, timeZone: string, nowMs: number): RankedBag<KnownBag>[] {
  const coffee = stock.coffees.find(({ id }) => id === coffeeId);
  if (!coffee) return [];
  const own = stock.bags.filter(({ sheet, state }) => sheet.coffeeId === coffeeId && state !== 'hopper');
  return bagsInOrder(
    own.map((bag) => knownBag(bag, coffee.sheet, timeZone)),
    nowMs,
  );
}

const days = (count: number): string => {
  const whole = Math.max(1, Math.round(count));
  return `${whole} ${whole === 1 ? 'day' : 'days'}`;
};

/** "Prime, 9 days old; fades in 5 days". */
export function freshWord({ ageDays, state, daysToNext }: Freshness): string {
  const age = `${Math.round(ageDays)} days old`;
  const next = daysToNext === null ? '' : days(daysToNext);
  switch (state) {
    case 'frozen':
      return `Frozen, as good as ${age}`;
    case 'resting':
      return `Resting, ready in ${next}`;
    case 'prime':
      return `Prime, ${age}; fades in ${next}`;
    case 'fading':
      return `Fading, ${age}; past in ${next}`;
    case 'past':
      return `Past, ${age}`;
  }
}

/** "open 3 h", "open 14 h, going", "open 20 h: too long". */
export function openWord(
  openedAtMs: number,
  nowMs: number,
  calendar: Calendar | null = null,
  freezes: readonly Freeze[] = [],
  limits: OpenLimits = usualOpenLimits,
): string {
  const hours = openHours(openedAtMs, nowMs, calendar, freezes);
  const open =
    hours < 1 ? 'just opened' : hours < HOURS_SAID ? `open ${Math.round(hours)} h` : `open ${days(hours / 24)}`;
  return { best: open, going: `${open}, best used soon`, stale: `${open}: longer than it keeps` }[
    openedState(hours, limits)
  ];
}
const HOURS_SAID = 48;
