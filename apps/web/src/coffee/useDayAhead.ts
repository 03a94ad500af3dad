import type { Bar } from '@tempera/contract/bar';
import { coffeeAhead, firstBagOf, type BagAhead, type CoffeeAhead } from '@tempera/core/coffee';
import { useMemo } from 'react';
import { nextBags, type KnownBag } from './fresh.ts';
import { useCoffeeUse, useStock } from './queries.ts';

/** A bag of the book, as the day ahead asks for it. */
interface AheadBag extends BagAhead {
  bag: KnownBag;
}

/** What the next day begins with: each coffee's need, and each hopper's first bag. */
export interface DayAhead {
  coffees: (CoffeeAhead<AheadBag> & { name: string })[];
  /** Null bag: what is left in its tub goes on. */
  hoppers: { grinderId: string; name: string; leftG: number; bag: AheadBag | null }[];
}

/**
 * What the next day begins with; null while the stock is read.
 * @param tubs grams weighed in this very closing, by grinder: nearer than what the bags say
 */
export function useDayAhead(
  bar: Bar,
  tubs: ReadonlyMap<string, number>,
  timeZone: string,
  nowMs: number,
): DayAhead | null {
  const { data: stock } = useStock();
  const { data: use } = useCoffeeUse();
  return useMemo(() => {
    if (!stock || !use) return null;
    const hoppers = bar.grinders.map(({ id, name, coffeeId }) => ({
      grinderId: id,
      name,
      coffeeId,
      leftG: tubs.get(id) ?? use.hoppers.find(({ grinderId }) => grinderId === id)?.leftG ?? 0,
    }));
    const bagsOf = (coffeeId: string): AheadBag[] =>
      nextBags(stock, coffeeId, timeZone, nowMs).map(({ bag, freshness }) => ({
        id: bag.id,
        bag,
        weightG: bag.kept.sheet.weightG,
        roastedAtMs: bag.roastedAtMs,
        state: freshness.state === 'frozen' ? 'frozen' : freshness.state === 'resting' ? 'notYet' : 'ready',
      }));
    const coffees = [...new Set(hoppers.map(({ coffeeId }) => coffeeId))].map((coffeeId) => ({
      ...coffeeAhead(
        coffeeId,
        hoppers,
        bagsOf(coffeeId),
        use.daily.find((daily) => daily.coffeeId === coffeeId)?.grams ?? [],
      ),
      name: stock.coffees.find(({ id }) => id === coffeeId)?.sheet.name ?? '',
    }));
    const thawed = new Set(coffees.flatMap(({ thaw }) => thaw.map(({ id }) => id)));
    const given = new Set<string>();
    return {
      coffees,
      hoppers: hoppers.map((hopper) => {
        const needG = coffees.find(({ coffeeId }) => coffeeId === hopper.coffeeId)?.needG ?? 0;
        // Two hoppers of one coffee do not begin with the same bag.
        const bags = bagsOf(hopper.coffeeId).filter(({ id }) => !given.has(id));
        const bag = firstBagOf(hopper, bags, needG, thawed);
        if (bag) given.add(bag.id);
        return { grinderId: hopper.grinderId, name: hopper.name, leftG: hopper.leftG, bag };
      }),
    };
  }, [stock, use, bar, tubs, timeZone, nowMs]);
}
