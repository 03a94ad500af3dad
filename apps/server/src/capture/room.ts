import { tellReadings } from '../kernel/live.ts';
import { problem } from '../kernel/problems.ts';
import { roomOf } from '../kernel/room.ts';
import { deviceOf } from '../team/index.ts';

/** Devices that a browser cannot reach. */
export const captureRoom = roomOf({
  name: 'capture',
  tables: [],
  handlers: ({ db }) => ({
    'POST /readings': async ({ req, body }) => {
      const device = await deviceOf(db, req);
      if (!device) throw problem('deviceUnknown');
      await tellReadings(db, device.siteId, body.readings);
      return undefined;
    },
  }),
});
