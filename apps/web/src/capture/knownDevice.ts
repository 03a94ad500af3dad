import { massUnits } from '@tempera/core/capture';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';

/** The ways to a device. */
const links = ['bluetooth', 'serial', 'wedge', 'bridge'] as const;
export type LinkKind = (typeof links)[number];

/** What a device is for. */
export const deviceKinds = ['scale', 'tub', 'gauge', 'air', 'machine'] as const;
export type DeviceKind = (typeof deviceKinds)[number];

const USUAL_BAUD = 9_600;

const knownSchema = z.object({
  id: z.string(),
  name: z.string(),
  link: z.enum(links),
  kind: z.enum(deviceKinds),
  /** The grinder, group or machine that it belongs to; null: whichever is worked at. */
  stationId: z.string().nullable(),
  /** What its numbers mean where they name no unit; null: nobody said yet. */
  unit: z.enum(massUnits).nullable(),
  baudRate: z.number(),
  /** What the browser or the bridge calls it; null: there is nothing to tell it by. */
  key: z.string().nullable(),
});

/** A device of this tablet, as it is remembered. */
export type KnownDevice = z.infer<typeof knownSchema>;

const KEY = 'tempera.devices';
/** Where a tablet remembers its devices. */
export type DeviceStore = Pick<Storage, 'getItem' | 'setItem'>;

export const remember = (storage: DeviceStore, devices: readonly KnownDevice[]): void =>
  storage.setItem(KEY, JSON.stringify(devices));

/** What this tablet remembers; nothing where it cannot be read. */
export function remembered(storage: DeviceStore): KnownDevice[] {
  try {
    return z.array(knownSchema).parse(JSON.parse(storage.getItem(KEY) ?? '[]'));
  } catch {
    return [];
  }
}

/** What a device is called until somebody names it. */
export const linkName: Record<LinkKind, string> = {
  bluetooth: 'Bluetooth scale',
  serial: 'Serial scale',
  wedge: 'Typing scale',
  bridge: 'Device at the bridge',
};

/** A device that was just found. @param key what the browser or the bridge calls it */
export const newDevice = (link: LinkKind, name: string, key: string | null): KnownDevice => ({
  id: uuidv7(),
  name,
  link,
  kind: 'scale',
  stationId: null,
  unit: null,
  baudRate: USUAL_BAUD,
  key,
});
