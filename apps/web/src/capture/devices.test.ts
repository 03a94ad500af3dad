import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { deviceShelf, type DeviceParts, type DeviceShelf } from './deviceShelf.ts';
import type { ScaleReading } from './drivers/link.ts';
import { pullOnScale } from './pullOnScale.ts';
import { fakeBluetooth, wasTared } from './standIns/fakeBluetooth.ts';
import { fakeSerial } from './standIns/fakeSerial.ts';
import { scaleFor } from './useBenchDevices.ts';

const START_MS = Date.parse('2031-05-02T06:00:00Z');

beforeEach(() => {
  vi.useFakeTimers({ now: START_MS });
  sessionStorage.clear();
});
afterEach(() => vi.useRealTimers());

/** Lets whatever waits for promises and streams go on, `ms` later. */
const pass = (ms = 0): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);

function storageOf(): DeviceParts['storage'] {
  const kept = new Map<string, string>();
  return { getItem: (key) => kept.get(key) ?? null, setItem: (key, value) => void kept.set(key, value) };
}

const shelfOf = (parts: Partial<DeviceParts>): DeviceShelf =>
  deviceShelf({ bluetooth: null, serial: null, keys: window, secure: true, storage: storageOf(), ...parts });

/** Everything that the newest device of a shelf says from now on. */
function heardFrom(shelf: DeviceShelf): ScaleReading[] {
  const heard: ScaleReading[] = [];
  shelf.listen(shelf.all().at(-1)?.id ?? '', (reading) => heard.push(reading));
  return heard;
}

describe('a Bluetooth scale', () => {
  it('is found, tells its weight at its own time, and is tared', async () => {
    const scale = fakeBluetooth('Fern scale');
    const shelf = shelfOf({ bluetooth: scale.bluetooth });
    expect(await shelf.find('bluetooth')).toBeNull();
    await pass();
    const heard = heardFrom(shelf);
    for (let i = 0; i < 50; i += 1) {
      scale.say(18.2, i * 20, i === 49);
      await pass(20);
    }
    scale.sayBytes([1, 2, 3]);
    expect(heard).toHaveLength(50);
    expect(heard.at(-1)).toEqual({ atMs: START_MS + 980, g: 18.2, stable: true });
    await pass(200);
    expect(shelf.all()[0]).toMatchObject({ name: 'Fern scale', silent: null, canTare: true });
    expect(shelf.all()[0]?.last.g?.value).toBe(18.2);
    await shelf.tare(shelf.all()[0]?.id ?? '');
    expect(wasTared(scale)).toBe(true);
  });

  it('that falls asleep says so, and goes on by itself once it wakes', async () => {
    const scale = fakeBluetooth('Fern scale');
    const shelf = shelfOf({ bluetooth: scale.bluetooth });
    await shelf.find('bluetooth');
    await pass();
    const heard = heardFrom(shelf);
    scale.sleep();
    await pass(5_000);
    expect(shelf.all()[0]?.silent).toBe('gone');
    expect(scale.say(18, 0)).toBe(false);
    scale.wake();
    await pass(16_000);
    expect(shelf.all()[0]?.silent).toBeNull();
    expect(scale.say(18, 0)).toBe(true);
    expect(heard).toHaveLength(1);
  });

  it('is known again after a reload, or says that it wants to be found', async () => {
    for (const remembers of [true, false]) {
      const storage = storageOf();
      const scale = fakeBluetooth('Fern scale', remembers);
      await shelfOf({ bluetooth: scale.bluetooth, storage }).find('bluetooth');
      const again = shelfOf({ bluetooth: scale.bluetooth, storage });
      await again.resume();
      await pass(100);
      expect(again.all()).toMatchObject([{ name: 'Fern scale', silent: remembers ? null : 'findAgain' }]);
    }
  });

  it('cannot be had over plain HTTP, nor in a browser without Bluetooth, and both are said', async () => {
    expect(await shelfOf({ bluetooth: fakeBluetooth('x').bluetooth, secure: false }).find('bluetooth')).toBe(
      'pageNotSecure',
    );
    expect(await shelfOf({}).find('bluetooth')).toBe('browserCannot');
  });
});

describe('a serial scale', () => {
  it('is read through half lines and bursts, spread over the time in which they came', async () => {
    const port = fakeSerial();
    const shelf = shelfOf({ serial: port.serial });
    await shelf.find('serial');
    await pass();
    expect(shelf.all()[0]?.silent).toBe('noReadings');
    const heard = heardFrom(shelf);
    port.say('+  18.');
    await pass(100);
    expect(heard).toEqual([]);
    port.say('1 g\r\n');
    await pass(100);
    port.say('+  18.2 g\r\n+  18.3 g\r\n');
    await pass();
    expect(heard.map(({ g }) => g)).toEqual([18.1, 18.2, 18.3]);
    expect(heard.map(({ atMs }) => atMs - START_MS)).toEqual([100, 150, 200]);
    await pass(200);
    expect(shelf.all()[0]?.silent).toBeNull();
  });

  it('whose lines name no unit weighs nothing until somebody says what they mean', async () => {
    const port = fakeSerial();
    const shelf = shelfOf({ serial: port.serial });
    await shelf.find('serial');
    await pass();
    const heard = heardFrom(shelf);
    port.say('  0.642\r\n');
    await pass(200);
    expect(shelf.all()[0]).toMatchObject({ silent: 'whichUnit', line: '0.642' });
    expect(heard).toEqual([]);
    shelf.change(shelf.all()[0]?.id ?? '', { unit: 'oz' });
    await pass(100);
    port.say('  0.642\r\n');
    await pass(100);
    expect(heard.map(({ g }) => Math.round(100 * g) / 100)).toEqual([18.2]);
  });

  it('at a wrong rate sends noise, and another rate opens it anew', async () => {
    const port = fakeSerial();
    const shelf = shelfOf({ serial: port.serial });
    await shelf.find('serial');
    await pass();
    for (let i = 0; i < 6; i += 1) port.say('\u00f0\u00ff~x\r\n');
    await pass(200);
    expect(shelf.all()[0]?.silent).toBe('notAWeight');
    shelf.change(shelf.all()[0]?.id ?? '', { baudRate: 2_400 });
    await pass(100);
    expect(port.openedAt()).toBe(2_400);
  });

  it('whose plug is pulled is taken up again once it is back', async () => {
    const port = fakeSerial();
    const shelf = shelfOf({ serial: port.serial });
    await shelf.find('serial');
    await pass();
    const heard = heardFrom(shelf);
    port.unplug();
    await pass(3_000);
    expect(shelf.all()[0]?.silent).toBe('gone');
    port.plugIn();
    await pass(16_000);
    port.say('18.2 g\n');
    await pass();
    expect(heard).toHaveLength(1);
  });
});

describe('a scale that types', () => {
  const press = (key: string, timeStamp: number): void => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true });
    Object.defineProperty(event, 'timeStamp', { value: timeStamp });
    window.dispatchEvent(event);
  };
  const type = (text: string, everyMs: number): void => {
    const fromMs = performance.now();
    Array.from(text)
      .concat('Enter')
      .forEach((key, i) => press(key, fromMs + i * everyMs));
  };

  it('is told from a hand by its speed', async () => {
    const shelf = shelfOf({});
    await shelf.find('wedge');
    await shelf.find('wedge');
    expect(shelf.all()).toHaveLength(1);
    const heard = heardFrom(shelf);
    type('18.2', 120);
    type('36', 5);
    type('+18.2 g', 5);
    expect(heard.map(({ g }) => g)).toEqual([18.2]);
    shelf.remove(shelf.all()[0]?.id ?? '');
    type('18.2 g', 5);
    expect(heard).toHaveLength(1);
  });
});

describe('devices at a bridge', () => {
  it('are offered by name, and speak once they are taken', async () => {
    const shelf = shelfOf({});
    const reading = { device: 'tub scale', value: 0.43, unit: 'kg' as const };
    shelf.take([reading, { device: 'window', value: 70, unit: '°F' }]);
    expect(shelf.heard()).toEqual(['tub scale', 'window']);
    await shelf.find('bridge', 'window');
    await shelf.find('bridge', 'tub scale');
    const heard = heardFrom(shelf);
    shelf.take([reading, { device: 'window', value: 70, unit: '°F' }, { device: 'window', value: 61, unit: '%' }]);
    expect(heard).toEqual([{ atMs: START_MS, g: 430, stable: null }]);
    await pass(200);
    expect(shelf.all()[0]?.last['°C']?.value).toBeCloseTo(21.11, 2);
    expect(shelf.all()[0]?.last['%']?.value).toBe(61);
  });
});

describe('a machine at a bridge', () => {
  it('tells whoever listens whether a shot runs and what its counter shows, and is not taken for silent between shots', async () => {
    const shelf = shelfOf({});
    const told = (value: number, unit: 'on' | 'count') => shelf.take([{ device: 'Fern 1', value, unit }]);
    told(0, 'on');
    await shelf.find('bridge', 'Fern 1');
    const { id } = shelf.all()[0]!;
    shelf.change(id, { kind: 'machine', stationId: 'group 1' });
    const heard: string[] = [];
    const off = shelf.hear(id, (unit, { value }) => heard.push(`${unit} ${value}`));
    told(1, 'on');
    told(182, 'count');
    told(0, 'on');
    expect(heard).toEqual(['on 1', 'count 182', 'on 0']);
    off();
    told(1, 'on');
    expect(heard).toHaveLength(3);
    await pass(600_000);
    expect(shelf.all()[0]).toMatchObject({ silent: null, last: { on: { value: 1 }, count: { value: 182 } } });
  });
});

describe('a line that stays open', () => {
  it('is silent once nothing has come for five seconds, and speaks again with the next number', async () => {
    const port = fakeSerial();
    const shelf = shelfOf({ serial: port.serial });
    await shelf.find('serial');
    await pass();
    port.say('18.2 g\n');
    await pass(4_000);
    expect(shelf.all()[0]?.silent).toBeNull();
    await pass(3_000);
    expect(shelf.all()[0]?.silent).toBe('noReadings');
    expect(scaleFor(shelf.all(), [])).toBeNull();
    port.say('18.2 g\n');
    await pass(200);
    expect(shelf.all()[0]?.silent).toBeNull();
  });

  it('to the room’s air may be quiet for minutes', async () => {
    const shelf = shelfOf({});
    await shelf.find('bridge', 'window');
    shelf.change(shelf.all()[0]?.id ?? '', { kind: 'air' });
    shelf.take([{ device: 'window', value: 21.5, unit: '°C' }]);
    await pass(120_000);
    expect(shelf.all()[0]?.silent).toBeNull();
  });
});

describe('which scale a bench weighs on', () => {
  it('is its own before one that goes around, and none that is silent', async () => {
    const [own, other] = [fakeBluetooth('own'), fakeBluetooth('other')];
    const shelf = shelfOf({ bluetooth: own.bluetooth });
    await shelf.find('bluetooth');
    const both = shelfOf({ bluetooth: other.bluetooth });
    await both.find('bluetooth');
    await pass();
    const [a, b] = [...shelf.all(), ...both.all()];
    expect(scaleFor([b!, { ...a!, stationId: 'group 1' }], ['group 1'])?.name).toBe('own');
    expect(scaleFor([b!, { ...a!, stationId: 'group 2' }], ['group 1'])?.name).toBe('other');
    expect(scaleFor([{ ...b!, silent: 'gone' }], [])).toBeNull();
    expect(scaleFor([{ ...b!, kind: 'tub' }], [])).toBeNull();
  });
});

describe('a pull on a real scale', () => {
  const start = { id: 'pull 1', startedAtMs: START_MS, doseG: 18, stoppedAtS: null };
  /** A cup that fills at 1.5 g/s after 5 s, read `hz` times a second, from one second of the shot to another. */
  const cupAt = (timeS: number): number => 1.5 * Math.max(0, Math.min(timeS, 29) - 5);

  async function bench(hz: number) {
    const scale = fakeBluetooth('cup');
    const shelf = shelfOf({ bluetooth: scale.bluetooth });
    await shelf.find('bluetooth');
    await pass();
    vi.setSystemTime(START_MS);
    const { id } = shelf.all()[0]!;
    const port = () => pullOnScale({ listen: (take) => shelf.listen(id, take), tare: () => shelf.tare(id) }, start);
    const run = async (fromS: number, toS: number): Promise<void> => {
      for (let i = fromS * hz; i < toS * hz; i += 1) {
        scale.say(cupAt(i / hz), Math.round((i * 1_000) / hz));
        await pass(1_000 / hz);
      }
    };
    return { scale, port, run };
  }

  it.each([10, 50])('is a trace at ten a second, read at %i', async (hz) => {
    const { scale, port, run } = await bench(hz);
    const pull = port();
    expect(wasTared(scale)).toBe(true);
    await run(0, 29);
    expect(pull.stopPump()).toBeCloseTo(29, 1);
    expect(pull.settled()).toBe(false);
    await run(29, 33);
    expect(pull.settled()).toBe(true);
    const { hz: rate, massG } = pull.trace();
    expect(rate).toBe(10);
    expect(massG[150]).toBeCloseTo(15, 1);
    expect(massG.at(-1)).toBeCloseTo(36, 1);
    expect(massG).not.toContain(null);
  });

  it('has a hole where the scale was gone, and goes on where it came back', async () => {
    const { scale, port, run } = await bench(10);
    const pull = port();
    await run(0, 12);
    scale.sleep();
    await pass(2_500);
    expect(pull.lost()).toBe(true);
    scale.wake();
    await pass(1_500);
    await run(16, 20);
    expect(pull.lost()).toBe(false);
    const { massG } = pull.trace();
    expect(massG[140]).toBeNull();
    expect(massG[110]).toBeCloseTo(9, 0);
    expect(massG[180]).toBeCloseTo(19.5, 0);
  });

  it('goes on after a reload with what was read before, and leaves nothing behind', async () => {
    const { port, run } = await bench(10);
    const before = port();
    await run(0, 12);
    before.leave();
    const after = port();
    expect(after.trace().massG.length).toBeGreaterThan(115);
    await run(12, 14);
    expect(after.trace().massG[100]).toBeCloseTo(7.5, 0);
    after.end();
    expect(sessionStorage.length).toBe(0);
  });
});
