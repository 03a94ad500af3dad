export { NewBag } from './NewBagLater.ts';
export { freshnessIn, freshWord, nextBags } from './fresh.ts';
export { useCoffeeUse, useStock } from './queries.ts';
export { FreezerTonight } from './FreezerTonight.tsx';
export { useDayAhead } from './useDayAhead.ts';
export { coffeeRoom } from './room.ts';
export { HopperButton } from './HopperButton.tsx';
export { useHopper } from './useHopper.ts';
