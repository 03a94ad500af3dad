export { captureRoom } from './room.ts';
