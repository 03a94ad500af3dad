import { later } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';

export const dayRoom: Room = {
  pages: [],
  reads: [],
  slots: { homeDay: later(async () => (await import('./DayOnHome.tsx')).DayOnHome) },
};
