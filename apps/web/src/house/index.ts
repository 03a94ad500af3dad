export { changeWord, houseAsks, stopWord } from './houseAsks.ts';
export { useRecipesInForce } from './queries.ts';
