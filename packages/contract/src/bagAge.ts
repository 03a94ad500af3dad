import type { RoastedBag } from '@tempera/core/coffee';
import { momentOf } from '@tempera/core/house';
import type { BagSheet } from './coffee.ts';

/** A date on a bag is a day: its middle is the best guess of the hour. */
const NOON_MIN = 720;

/** A bag's sheet as the reckoning of its freshness wants it, by the café's own clock. */
export const roastedBagOf = (
  { roastedOn, freezes }: Pick<BagSheet, 'roastedOn' | 'freezes'>,
  timeZone: string,
): RoastedBag => ({
  roastedAtMs: momentOf(roastedOn, NOON_MIN, timeZone),
  freezes: freezes.map(({ on, until }) => ({
    fromMs: momentOf(on, NOON_MIN, timeZone),
    toMs: until === null ? null : momentOf(until, NOON_MIN, timeZone),
  })),
});
