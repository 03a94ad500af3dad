export { NewBag } from './NewBagLater.ts';
export { coffeeRoom } from './room.ts';
export { useHopper } from './useHopper.ts';
