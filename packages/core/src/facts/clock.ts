/**
 * When something happened by the house's clock, in ms since the epoch. Tablets have wrong clocks; no honest fact is refused
 * for one. What the device said is corrected by how far its clock was measured to be ahead, and never lies after the fact
 * arrived: what has arrived has happened.
 * @param deviceMs what the device's clock said
 * @param skewMs how far that clock was ahead of the server's (negative: behind); null where it was never measured
 * @param arrivedMs when the server had it; null while it waits to be sent
 */
export function houseTimeMs(deviceMs: number, skewMs: number | null, arrivedMs: number | null): number {
  return Math.min(deviceMs - (skewMs ?? 0), arrivedMs ?? Infinity);
}
