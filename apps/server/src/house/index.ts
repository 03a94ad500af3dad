export { houseRoutes } from './routes.ts';
export { recipesInForce, recipeTargets, recipeVersions, todayAt } from './inForce.ts';
export { policyVersions } from './service.ts';
export {
  DrinkEntity,
  houseEntities,
  PolicyVersionEntity,
  RecipeVersionEntity,
  type RecipeVersionRow,
} from './entities.ts';
