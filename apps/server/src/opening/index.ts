export { openingRoom } from './room.ts';
