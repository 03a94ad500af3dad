export { cafeFields } from './cafeFields.ts';
export { changeWord, houseAsks, stopWord } from './houseAsks.ts';
export { useRecipesInForce } from './queries.ts';
export { houseRoom } from './room.ts';
