export { cafeFields } from './cafeFields.ts';
export { changeWord, houseAsks, stopWord } from './houseAsks.ts';
export type { RecipeDraft } from './recipeDraft.ts';
export { setWord } from './setWord.ts';
export { aimWord } from './recipeWords.ts';
export { useRecipesInForce } from './queries.ts';
export { PaceInRush } from './PaceInRush.tsx';
export { houseRoom } from './room.ts';
