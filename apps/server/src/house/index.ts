export { houseRoutes } from './routes.ts';
export { recipesInForce, todayAt } from './inForce.ts';
export { policyVersions } from './service.ts';
export {
  DrinkEntity,
  houseEntities,
  PolicyVersionEntity,
  RecipeVersionEntity,
  type RecipeVersionRow,
} from './entities.ts';
