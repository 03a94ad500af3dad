export { bagsPast } from './bagsPast.ts';
export { BagEntity, CoffeeEntity } from './entities.ts';
export { coffeeRoom } from './room.ts';
