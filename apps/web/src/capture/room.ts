import { later } from '../kernel/later.tsx';
import type { Room } from '../kernel/room.ts';

export const captureRoom: Room = {
  pages: [{ path: '/devices', load: async () => (await import('./DevicesPage.tsx')).DevicesPage }],
  does: [{ id: 'devices', label: 'Devices: scales, gauges, air', to: '/devices' }],
  reads: [],
  onReadings: ({ readings }) => void import('./shelfHere.ts').then(({ takeReadings }) => takeReadings(readings)),
  slots: {
    groupChecks: later(async () => (await import('./ButtonCheck.tsx')).ButtonCheck),
    beside: later(async () => (await import('./AirKeeper.tsx')).AirKeeper),
  },
};
