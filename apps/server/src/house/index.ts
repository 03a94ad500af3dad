export { recipesInForce, recipeTargets, recipeVersions } from './inForce.ts';
export { policyVersions } from './policies.ts';
export { DrinkEntity, PolicyVersionEntity, RecipeVersionEntity, type RecipeVersionRow } from './entities.ts';
export { houseRoom } from './room.ts';
export { recipeMustBeOurs } from './recipes.ts';
export { untilHouseChanges } from './untilHouseChanges.ts';
