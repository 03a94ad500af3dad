import { barRoom } from '../bar/index.ts';
import { calibrationRoom } from '../calibration/index.ts';
import { captureRoom } from '../capture/index.ts';
import { coffeeRoom } from '../coffee/index.ts';
import { dayRoom } from '../day/index.ts';
import { houseRoom } from '../house/index.ts';
import { journalRoom } from '../journal/index.ts';
import type { Room } from '../kernel/room.ts';
import { openingRoom } from '../opening/index.ts';
import { tasteRoom } from '../taste/index.ts';
import { teamRoom } from '../team/index.ts';

/** Every room, in the order of the navigation. A room more is a line more; what is in it, it says itself. */
export const rooms: readonly Room[] = [
  barRoom,
  openingRoom,
  coffeeRoom,
  houseRoom,
  journalRoom,
  calibrationRoom,
  captureRoom,
  dayRoom,
  tasteRoom,
  teamRoom,
];

/** What rooms hang into each other's pages. */
export const slots = rooms.flatMap((room) => room.slots ?? []);
