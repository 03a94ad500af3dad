export { houseEntities, RecipeVersionEntity, type RecipeVersionRow } from './entities.ts';
