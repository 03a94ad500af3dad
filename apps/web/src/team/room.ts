import type { Room } from '../kernel/room.ts';

export const teamRoom: Room = { pages: [], reads: [] };
