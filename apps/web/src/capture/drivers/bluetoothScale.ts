import {
  barScaleService,
  readingClock,
  scaleOrders,
  unpackReading,
  unpackWeight,
  weightScaleService,
} from '@tempera/core/capture';
import { keepTrying, type LinkEvents, type ScaleLink, type ScaleReading } from './link.ts';

/** Reads packets of the open bar-scale service, each at its own time. */
export function packetReader(onReading: (reading: ScaleReading) => void) {
  const timeOf = readingClock();
  return (packet: DataView, arrivedMs: number): void => {
    const read = unpackReading(packet);
    if (read) onReading({ atMs: timeOf(read.clockMs, arrivedMs), g: read.g, stable: read.stable });
  };
}

/** Asks the person to choose a scale of either service. @throws DOMException where nobody chose one */
export const chooseBluetoothScale = (bluetooth: Bluetooth): Promise<BluetoothDevice> =>
  bluetooth.requestDevice({
    filters: [{ services: [barScaleService.service] }, { services: [weightScaleService.service] }],
    optionalServices: [barScaleService.service, weightScaleService.service],
  });

/** The characteristic that a scale speaks by, and how a packet of it is read. */
async function voiceOf(server: BluetoothRemoteGATTServer, onReading: LinkEvents['onReading']) {
  const own = await server.getPrimaryService(barScaleService.service).catch(() => null);
  if (own) {
    return {
      characteristic: await own.getCharacteristic(barScaleService.reading),
      order: await own.getCharacteristic(barScaleService.order).catch(() => null),
      read: packetReader(onReading),
    };
  }
  const standard = await server.getPrimaryService(weightScaleService.service);
  return {
    characteristic: await standard.getCharacteristic(weightScaleService.reading),
    order: null,
    read: (packet: DataView, arrivedMs: number): void => {
      const g = unpackWeight(packet);
      // The standard service tells a weight once it has come to rest.
      if (g !== null) onReading({ atMs: arrivedMs, g, stable: true });
    },
  };
}

/** A scale over Web Bluetooth, of our open service or the standard one; found again by itself when it wakes. */
export function bluetoothScale(device: BluetoothDevice, { onReading, onSilent }: LinkEvents): ScaleLink {
  let order: BluetoothRemoteGATTCharacteristic | null = null;
  let stopHearing: (() => void) | null = null;
  const open = async (): Promise<void> => {
    const server = await device.gatt?.connect();
    if (!server) throw new Error('no GATT server');
    const voice = await voiceOf(server, onReading);
    const { characteristic, read } = voice;
    const hear = (): void => {
      if (characteristic.value) read(characteristic.value, Date.now());
    };
    characteristic.addEventListener('characteristicvaluechanged', hear);
    stopHearing = () => characteristic.removeEventListener('characteristicvaluechanged', hear);
    await characteristic.startNotifications();
    order = voice.order;
    onSilent(null);
  };
  const trying = keepTrying(open);
  const goes = (): void => {
    stopHearing?.();
    stopHearing = null;
    order = null;
    onSilent('gone');
    trying.lost();
  };
  device.addEventListener('gattserverdisconnected', goes);
  return {
    get tare() {
      const by = order;
      return by && (() => by.writeValueWithResponse(Uint8Array.of(scaleOrders.tare)));
    },
    close: async () => {
      trying.stop();
      stopHearing?.();
      device.removeEventListener('gattserverdisconnected', goes);
      device.gatt?.disconnect();
      await Promise.resolve();
    },
  };
}
