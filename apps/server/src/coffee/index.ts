export { BagEntity, CoffeeEntity } from './entities.ts';
export { coffeeRoom } from './room.ts';
