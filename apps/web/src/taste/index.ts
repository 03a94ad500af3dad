export { tasteWord } from './tasteWords.ts';
export { tasteRoom } from './room.ts';
export { TasteGrinder } from './TasteGrinder.tsx';
