/** Events of the live stream (server-sent events at /api/live). */
export const liveEvents = {
  /** A fact was written; data is the RecordedFact, the event id its `seq`. */
  fact: 'fact',
  /** What the devices at a bridge tell; data is a BridgeReadings. Nothing of it is kept: a page that was not open missed it. */
  readings: 'readings',
  /** Notices may have been missed: read everything again. */
  resync: 'resync',
} as const;
