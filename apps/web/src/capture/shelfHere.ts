import type { BridgeReading } from '@tempera/contract/readings';
import { deviceShelf, type DeviceParts, type DeviceShelf } from './deviceShelf.ts';
import { standInBrowser } from './standIns/standInBrowser.ts';

let shelf: DeviceShelf | null = null;

/** What this browser has of its own. */
function partsOfBrowser(): Pick<DeviceParts, 'bluetooth' | 'serial'> {
  return {
    bluetooth: 'bluetooth' in navigator ? navigator.bluetooth : null,
    serial: 'serial' in navigator ? navigator.serial : null,
  };
}

/** The one shelf of this page, opened when it is first asked for. @param demo with stand-ins in place of what a browser has */
export function shelfHere(demo: boolean): DeviceShelf {
  if (shelf) return shelf;
  const parts = demo ? standInBrowser() : partsOfBrowser();
  shelf = deviceShelf({ ...parts, keys: window, secure: window.isSecureContext, storage: localStorage });
  void shelf.resume();
  for (const readings of early.splice(0)) shelf.take(readings);
  return shelf;
}

const early: (readonly BridgeReading[])[] = [];
const FEW = 20;

/** What a bridge sent; until the shelf is open the last of it waits. */
export function takeReadings(readings: readonly BridgeReading[]): void {
  if (shelf) shelf.take(readings);
  else {
    early.push(readings);
    early.splice(0, early.length - FEW);
  }
}
