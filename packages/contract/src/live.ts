/** Events of the live stream (server-sent events at /api/live). */
export const liveEvents = {
  /** A fact was written; data is the RecordedFact, the event id its `seq`. */
  fact: 'fact',
  /** Notices may have been missed: read everything again. */
  resync: 'resync',
} as const;
