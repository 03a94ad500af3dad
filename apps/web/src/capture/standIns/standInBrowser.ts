import { MS_PER_SECOND, seededRandom } from '@tempera/core/numbers';
import { scaleReading } from '@tempera/core/practice';
import type { DeviceParts } from '../deviceShelf.ts';
import { fakeBluetooth } from './fakeBluetooth.ts';
import { fakeSerial } from './fakeSerial.ts';

const BAR_HZ = 10;
const COUNTER_HZ = 5;
/** What lies on them: a portafilter with its dose on the one, a tub on the other. */
const BAR_G = 18.2;
const COUNTER_OZ = 0.64;

/** What a browser has, with two simulated scales: one speaks our Bluetooth service, one writes lines that name no unit. */
export function standInBrowser(): Pick<DeviceParts, 'bluetooth' | 'serial'> {
  const random = seededRandom(1);
  const sinceMs = Date.now();
  let tared = 0;
  // They speak from the moment on that somebody listens.
  const barSpeaks = once(() =>
    setInterval(() => {
      if (bar.orders.splice(0).length > 0) tared = BAR_G;
      bar.say(scaleReading(BAR_G - tared, random), Date.now() - sinceMs, true);
    }, MS_PER_SECOND / BAR_HZ),
  );
  const counterSpeaks = once(() =>
    setInterval(() => counter.say(`ST +  ${COUNTER_OZ.toFixed(3)}\r\n`), MS_PER_SECOND / COUNTER_HZ),
  );
  const bar = fakeBluetooth('Bar scale (simulated)', true, barSpeaks);
  const counter = fakeSerial(true, counterSpeaks);
  return { bluetooth: bar.bluetooth, serial: counter.serial };
}

function once(begin: () => void): () => void {
  let begun = false;
  return () => {
    if (!begun) begin();
    begun = true;
  };
}
