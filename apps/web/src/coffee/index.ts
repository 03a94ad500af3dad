export { NewBag } from './NewBagLater.ts';
export { freshnessIn, freshWord, nextBags } from './fresh.ts';
export { useStock } from './queries.ts';
export { coffeeRoom } from './room.ts';
export { useHopper } from './useHopper.ts';
