export { BagEntity, CoffeeEntity, coffeeEntities } from './entities.ts';
export { coffeeRoutes } from './routes.ts';
