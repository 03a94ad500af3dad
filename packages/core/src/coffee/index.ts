export {
  AGE_DOUBT_DAYS,
  ageDays,
  freshnessOf,
  openedState,
  usualOpenLimits,
  type OpenLimits,
  usualWindow,
  type Freeze,
  type Freshness,
  type RoastedBag,
  type FreshState,
  type FreshWindow,
} from './freshness.ts';
export { gramsOf, gramsUsed, usesInTurn, usesOf, type GramsUsed, type Use, type UseCause } from './gramsUsed.ts';
export { bagsInOrder, type RankedBag, type StockBag } from './nextBag.ts';
export { portionsOf } from './portions.ts';
export { coffeeAhead, firstBagOf, type BagAhead, type CoffeeAhead } from './dayAhead.ts';
export { leftIn, takenOut, type FreezerStay } from './thaw.ts';
export { runOut, type RunOut } from './stock.ts';
export {
  hoppersLeft,
  throughputByDay,
  type DayGrams,
  type HopperBag,
  type HopperLeft,
  type OpenDay,
  type TubWeighed,
} from './throughput.ts';
export { calibrationByDay, useByDay, type DayUse } from './useByDay.ts';
export { openHours } from './openHours.ts';
