import { later } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';

export const captureRoom: Room = {
  pages: [],
  reads: [],
  slots: { groupChecks: later(async () => (await import('./ButtonCheck.tsx')).ButtonCheck) },
};
