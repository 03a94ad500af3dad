import { z } from 'zod';

/** What a device that a browser cannot reach may measure: `on` is 1 while a shot runs and 0 once it is over, `count` what a volume counter shows. */
export const readingUnits = ['g', 'kg', 'oz', 'lb', 'bar', '°C', '°F', '%', 'on', 'count'] as const;
/** One of them. */
export type ReadingUnit = (typeof readingUnits)[number];

const MOST_AT_ONCE = 200;
const LONGEST_NAME = 60;

/** One reading as a bridge sends it: a line of JSON (`docs/devices.md`). */
export const bridgeReadingSchema = z.strictObject({
  /** What the device is called at its bridge: "counter scale". */
  device: z.string().trim().min(1).max(LONGEST_NAME),
  value: z.number().min(-1e6).max(1e6),
  unit: z.enum(readingUnits),
  /** When it was taken; absent: just now. */
  at: z.iso.datetime({ offset: true }).optional(),
  /** Whether the device calls it steady; absent: it does not say. */
  stable: z.boolean().optional(),
});
export type BridgeReading = z.infer<typeof bridgeReadingSchema>;

export const bridgeReadingsSchema = z.strictObject({
  readings: z.array(bridgeReadingSchema).min(1).max(MOST_AT_ONCE),
});
/** What a bridge sends at once, and what every page of its café is told. */
export type BridgeReadings = z.infer<typeof bridgeReadingsSchema>;
