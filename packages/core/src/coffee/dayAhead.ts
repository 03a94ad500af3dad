import { dayNeedG, thawTonight, type Frozen } from './thaw.ts';

/** A hopper that tomorrow is filled. */
export interface HopperAhead {
  grinderId: string;
  coffeeId: string;
  /** Grams that lie in its tub, or should. */
  leftG: number;
}

/** Bags of a coffee, in the order in which they should be used. */
export interface BagAhead extends Frozen {
  state: 'frozen' | 'ready' | 'notYet';
}

/** What a coffee needs tomorrow, and where it comes from. */
export interface CoffeeAhead<T extends BagAhead> {
  coffeeId: string;
  needG: number;
  /** In tubs and in bags that can be poured. */
  atHandG: number;
  /** Must leave the freezer tonight. */
  thaw: T[];
  /** What is missing still; 0 where it suffices. */
  missingG: number;
}

/** A tub with less than this is finished with the first shots: the next bag is opened with it. */
const SMALL_TUB_SHARE = 0.1;

/**
 * What one coffee needs on the next working day.
 * @param bags of the coffee that are in no hopper, the one to take first first
 * @param dailyG grams used on each of the last working days
 */
export function coffeeAhead<T extends BagAhead>(
  coffeeId: string,
  hoppers: readonly HopperAhead[],
  bags: readonly T[],
  dailyG: readonly number[],
): CoffeeAhead<T> {
  const needG = dayNeedG(dailyG);
  const leftG = hoppers.filter((hopper) => hopper.coffeeId === coffeeId).reduce((sum, hopper) => sum + hopper.leftG, 0);
  const ready = bags.filter(({ state }) => state === 'ready').reduce((sum, { weightG }) => sum + weightG, 0);
  const atHandG = leftG + ready;
  const frozen = bags.filter(({ state }) => state === 'frozen');
  const thaw = thawTonight(frozen, needG, atHandG);
  const thawedG = thaw.reduce((sum, { weightG }) => sum + weightG, 0);
  return { coffeeId, needG, atHandG, thaw, missingG: Math.max(0, needG - atHandG - thawedG) };
}

/**
 * The bag that a hopper begins the next day with; null: what is left in its tub goes on, or there is none.
 * @param bags of its coffee, the one to take first first; thawed ones count as ready
 */
export function firstBagOf<T extends BagAhead>(
  { leftG }: HopperAhead,
  bags: readonly T[],
  needG: number,
  thawed: ReadonlySet<string>,
): T | null {
  if (leftG > 0 && leftG >= needG * SMALL_TUB_SHARE) return null;
  return bags.find(({ id, state }) => state === 'ready' || thawed.has(id)) ?? null;
}
