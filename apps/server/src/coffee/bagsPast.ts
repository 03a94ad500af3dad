import { roastedBagOf } from '@tempera/contract/bagAge';
import { freshnessOf } from '@tempera/core/coffee';
import { In, type DataSource } from 'typeorm';
import { BagEntity, CoffeeEntity } from './entities.ts';

/** Which of a café's bags are past their coffee's window at `nowMs`, frozen time taken out. @param ids of bags, few of them */
export async function bagsPast(
  db: DataSource,
  site: { id: string; timeZone: string },
  ids: readonly string[],
  nowMs: number,
): Promise<Set<string>> {
  if (ids.length === 0) return new Set();
  const bags = await db.getRepository(BagEntity).findBy({ siteId: site.id, id: In([...ids]) });
  const coffees = await db
    .getRepository(CoffeeEntity)
    .findBy({ siteId: site.id, id: In(bags.map(({ coffeeId }) => coffeeId)) });
  const windows = new Map(coffees.map((coffee) => [coffee.id, coffee]));
  const isPast = (bag: (typeof bags)[number]): boolean => {
    const window = windows.get(bag.coffeeId);
    return window !== undefined && freshnessOf(roastedBagOf(bag, site.timeZone), window, nowMs).state === 'past';
  };
  return new Set(bags.filter(isPast).map(({ id }) => id));
}
