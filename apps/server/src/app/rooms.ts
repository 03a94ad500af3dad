import { barRoom } from '../bar/index.ts';
import { calibrationRoom } from '../calibration/index.ts';
import { captureRoom } from '../capture/index.ts';
import { coffeeRoom } from '../coffee/index.ts';
import { dayRoom } from '../day/index.ts';
import { houseRoom } from '../house/index.ts';
import { journalRoom } from '../journal/index.ts';
import { openingRoom } from '../opening/index.ts';
import { teamRoom } from '../team/index.ts';

/** Every room of the house. A room more is a line more; what is in it, it says itself. */
export const rooms = [
  // Routes are tried in this order: nothing is written or read as often as facts.
  journalRoom,
  teamRoom,
  barRoom,
  houseRoom,
  coffeeRoom,
  calibrationRoom,
  openingRoom,
  dayRoom,
  captureRoom,
];
