/**
 * The open Bluetooth service of a bar scale, so that anybody's board can speak it (`docs/devices.md`). A reading is nine
 * bytes, little-endian: int32 hundredths of a gram, uint32 milliseconds by the scale's clock, uint8 flags.
 */
export const barScaleService = {
  service: '7b1d0c4e-52a9-4f3e-9c61-1f0a8e6d2b10',
  /** Notifies readings, ten times a second or so. */
  reading: '7b1d0c4e-52a9-4f3e-9c61-1f0a8e6d2b11',
  /** Takes orders of one byte. */
  order: '7b1d0c4e-52a9-4f3e-9c61-1f0a8e6d2b12',
} as const;

/** Orders that a bar scale takes. */
export const scaleOrders = { tare: 1 } as const;

/** The standard service of scales, too coarse for a cup and good enough for tubs and hoppers. */
export const weightScaleService = { service: 0x181d, reading: 0x2a9d } as const;

const BYTES = 9;
const PER_G = 100;
const STABLE = 1;
const OVERLOAD = 2;

export interface ScalePacket {
  g: number;
  /** By the scale's own clock, ms; it begins anew after a sleep. */
  clockMs: number;
  stable: boolean;
}

/** A reading as a bar scale sends it. */
export function packReading({ g, clockMs, stable }: ScalePacket): DataView {
  const view = new DataView(new ArrayBuffer(BYTES));
  view.setInt32(0, Math.round(g * PER_G), true);
  view.setUint32(4, clockMs % 2 ** 32, true);
  view.setUint8(8, stable ? STABLE : 0);
  return view;
}

/** @returns null for a packet of another length, and for an overloaded scale */
export function unpackReading(view: DataView): ScalePacket | null {
  if (view.byteLength !== BYTES) return null;
  const flags = view.getUint8(8);
  if ((flags & OVERLOAD) !== 0) return null;
  return { g: view.getInt32(0, true) / PER_G, clockMs: view.getUint32(4, true), stable: (flags & STABLE) !== 0 };
}

const IMPERIAL = 1;
const FEWEST_BYTES = 3;
const G_PER_STEP = 5;
const G_PER_IMPERIAL_STEP = 4.5359237;

/**
 * Grams of a "Weight Measurement" (Bluetooth GATT Specification Supplement 5, section 3.243): steps of 0.005 kg or 0.01 lb.
 * @returns null for one that is too short, or that says the measurement failed
 */
export function unpackWeight(view: DataView): number | null {
  if (view.byteLength < FEWEST_BYTES) return null;
  const steps = view.getUint16(1, true);
  const FAILED = 0xffff;
  if (steps === FAILED) return null;
  return steps * ((view.getUint8(0) & IMPERIAL) !== 0 ? G_PER_IMPERIAL_STEP : G_PER_STEP);
}
