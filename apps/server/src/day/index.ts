export { dayRoom } from './room.ts';
