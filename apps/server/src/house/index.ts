export { houseRoutes } from './routes.ts';
export { policyVersions } from './service.ts';
export { houseEntities, PolicyVersionEntity, RecipeVersionEntity, type RecipeVersionRow } from './entities.ts';
