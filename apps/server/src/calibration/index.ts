export { memoryUpTo } from './memory.ts';
export { calibrationRoom } from './room.ts';
