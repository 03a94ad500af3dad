export { bagsPast } from './bagsPast.ts';
export { BagEntity, CoffeeEntity } from './entities.ts';
export { coffeeUse } from './use.ts';
export { coffeeRoom } from './room.ts';
