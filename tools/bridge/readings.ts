import { bridgeReadingSchema, type BridgeReading } from '@tempera/contract/readings';
import { lineReader, readScaleLine, type MassUnit } from '@tempera/core/capture';

/** A device as it was named to the bridge. */
export interface Device {
  name: string;
  /** What its numbers mean where its lines name no unit. */
  unit: MassUnit;
}

function json(line: string): unknown {
  try {
    return JSON.parse(line);
  } catch {
    return null;
  }
}

/**
 * A line as a reading: an object of the bridge's own protocol, with the device's name where it names none, or the line of a
 * scale. Null for what is neither.
 */
export function readingOf(line: string, { name, unit }: Device, atMs: number): BridgeReading | null {
  const at = new Date(atMs).toISOString();
  if (line.startsWith('{')) {
    const told = json(line);
    return bridgeReadingSchema.safeParse({ device: name, at, ...(told as object | null) }).data ?? null;
  }
  const read = readScaleLine(line);
  if (!read) return null;
  const stable = read.stable === null ? {} : { stable: read.stable };
  return { device: name, value: read.value, unit: read.unit ?? unit, at, ...stable };
}

/** Takes text piece by piece, and gives the readings that it completes. */
export function readingsFrom(device: Device, now: () => number): (piece: string) => BridgeReading[] {
  const linesOf = lineReader();
  return (piece) => linesOf(piece).flatMap((line) => readingOf(line, device, now()) ?? []);
}
