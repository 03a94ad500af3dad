import { barScaleService, packReading, scaleOrders } from '@tempera/core/capture';

/** A bar scale of our open service, behind a stand-in for the browser's Bluetooth: it speaks the very packets. */
export interface FakeScale {
  bluetooth: Bluetooth;
  /** A reading, by the scale's own clock; true: somebody hears it. */
  say(g: number, clockMs: number, stable?: boolean): boolean;
  /** Bytes that are no reading. */
  sayBytes(bytes: readonly number[]): void;
  /** It falls asleep, or is carried away: the connection is lost, and none can be made until it wakes. */
  sleep(): void;
  wake(): void;
  /** Orders that it was given. */
  orders: number[];
}

/** @param remembers whether the browser knows it again after a reload @param onOpen somebody connects */
export function fakeBluetooth(name: string, remembers = true, onOpen = (): void => undefined): FakeScale {
  let awake = true;
  let connected = false;
  let notifies = false;
  const orders: number[] = [];
  const reading = Object.assign(new EventTarget(), {
    value: undefined as DataView | undefined,
    startNotifications: () => {
      notifies = true;
      return Promise.resolve(reading);
    },
  });
  const order = {
    writeValueWithResponse: (bytes: Uint8Array) => {
      orders.push(...bytes);
      return Promise.resolve();
    },
  };
  const service = {
    getCharacteristic: (id: string) =>
      id === barScaleService.reading
        ? Promise.resolve(reading)
        : id === barScaleService.order
          ? Promise.resolve(order)
          : Promise.reject(new DOMException('no such characteristic', 'NotFoundError')),
  };
  const gatt = {
    connect: () => {
      if (!awake) return Promise.reject(new DOMException('out of reach', 'NetworkError'));
      connected = true;
      onOpen();
      return Promise.resolve({
        getPrimaryService: (id: string | number) =>
          id === barScaleService.service
            ? Promise.resolve(service)
            : Promise.reject(new DOMException('no such service', 'NotFoundError')),
      });
    },
    disconnect: () => {
      connected = false;
    },
  };
  const device = Object.assign(new EventTarget(), { id: `fake ${name}`, name, gatt });
  const send = (view: DataView): boolean => {
    if (!connected || !notifies) return false;
    reading.value = view;
    reading.dispatchEvent(new Event('characteristicvaluechanged'));
    return true;
  };
  return {
    bluetooth: {
      requestDevice: () => Promise.resolve(device),
      getDevices: () => Promise.resolve(remembers ? [device] : []),
    } as unknown as Bluetooth,
    say: (g, clockMs, stable = false) => send(packReading({ g, clockMs, stable })),
    sayBytes: (bytes) => void send(new DataView(Uint8Array.from(bytes).buffer)),
    sleep: () => {
      awake = false;
      connected = false;
      notifies = false;
      device.dispatchEvent(new Event('gattserverdisconnected'));
    },
    wake: () => {
      awake = true;
    },
    orders,
  };
}

/** Whether a scale was told to begin at nought. */
export const wasTared = ({ orders }: FakeScale): boolean => orders.includes(scaleOrders.tare);
