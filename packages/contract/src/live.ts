import { sheetPaths, type SheetKind } from './sheetPaths.ts';

/** Events of the live stream (server-sent events at /api/live). */
export const liveEvents = {
  /**
   * The stream is open; data is a `Joined`: what happened from now on comes by itself. A browser that comes back names the
   * last event's id (`Last-Event-ID`), and is sent the facts since before it.
   */
  joined: 'joined',
  /** A fact was written; data is the RecordedFact, the event id its `seq`. */
  fact: 'fact',
  /** Something of the house was changed; data is a `Changed`. */
  changed: 'changed',
  /** What the devices at a bridge tell; data is a BridgeReadings. Nothing of it is kept: a page that was not open missed it. */
  readings: 'readings',
  /** Notices may have been missed: read everything again. */
  resync: 'resync',
} as const;

/** What can change besides what facts say: a kind of sheet, the plan, a recipe, the policies, what the bar remembers. */
export const changeables = [
  ...(Object.keys(sheetPaths) as SheetKind[]),
  'plan',
  'recipe',
  'policies',
  'memory',
] as const satisfies readonly string[];
export type Changeable = (typeof changeables)[number];

export interface Changed {
  what: Changeable;
}

export interface Joined {
  /** The server's clock as the stream opened, ms since the epoch. */
  atMs: number;
  /** When the last news were that this stream was not sent: a fact, a change of the house; null: never. What was read after that is fresh. */
  lastMs: number | null;
}
