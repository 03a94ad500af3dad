import { gPerUnit, massUnits } from '@tempera/core/capture';
import type { BridgeReading, ReadingUnit } from '@tempera/contract/readings';
import { bluetoothScale, chooseBluetoothScale } from './drivers/bluetoothScale.ts';
import type { LinkEvents, ScaleLink, ScaleReading, WhySilent } from './drivers/link.ts';
import { serialScale } from './drivers/serialScale.ts';
import { wedgeScale } from './drivers/wedgeScale.ts';
import {
  linkName,
  newDevice,
  remember,
  remembered,
  type DeviceStore,
  type KnownDevice,
  type LinkKind,
} from './knownDevice.ts';

/** A value that a device told last. */
interface LastValue {
  atMs: number;
  value: number;
  stable: boolean | null;
}

/** A device as it is now. */
export interface DeviceNow extends KnownDevice {
  /** Why it says nothing; null: it speaks. */
  silent: WhySilent | null;
  /** What it told last, by unit: a thermo-hygrometer has two. */
  last: Partial<Record<ReadingUnit, LastValue>>;
  /** The last line that named no unit, for the question what it means. */
  line: string | null;
  canTare: boolean;
}

/** What the browser gives; null where it has none of it. */
export interface DeviceParts {
  bluetooth: Bluetooth | null;
  serial: Serial | null;
  keys: Window;
  secure: boolean;
  storage: DeviceStore;
}

/** The devices of this tablet: found, remembered, listened to. */
export interface DeviceShelf {
  watch: (watcher: () => void) => () => void;
  all: () => readonly DeviceNow[];
  /** Names that speak through a bridge, and are not in use here. */
  heard: () => readonly string[];
  /** Lets the person choose a device. @throws DOMException NotFoundError where they chose none @returns why it cannot be, or null */
  find: (link: LinkKind, key?: string) => Promise<WhySilent | null>;
  change: (id: string, patch: Partial<Pick<KnownDevice, 'name' | 'kind' | 'stationId' | 'unit' | 'baudRate'>>) => void;
  remove: (id: string) => void;
  tare: (id: string) => Promise<void>;
  /** Every weight of a device as it comes. */
  listen: (id: string, onReading: (reading: ScaleReading) => void) => () => void;
  /** What a bridge sent. */
  take: (readings: readonly BridgeReading[]) => void;
  /** Opens what is remembered. */
  resume: () => Promise<void>;
}

/** A page shows a number that changes so often, at most. */
const SHOWN_EVERY_MS = 150;

/** A scale that sends by itself and has said nothing for so long is silent, though its line is open. */
const SILENT_MS = 5_000;
const SWEEPS_EVERY_MS = 1_000;
/** Ways by which a scale sends on and on; the others speak when there is something to say, or tell when they are gone. */
const SENDS_ON: readonly LinkKind[] = ['serial', 'bridge'];

interface Standing {
  known: KnownDevice;
  /** When it was last heard, ms since the epoch, by this tablet's clock. */
  heardAtMs: number;
  silent: WhySilent | null;
  last: DeviceNow['last'];
  line: string | null;
  link: ScaleLink | null;
  listeners: Set<(reading: ScaleReading) => void>;
}

/** The shelf over what a browser gives. */
export function deviceShelf({ bluetooth, serial, keys, secure, storage }: DeviceParts): DeviceShelf {
  const standing: Standing[] = [];
  const heard = new Set<string>();
  const watchers = new Set<() => void>();
  let shown: readonly DeviceNow[] = [];
  let shownAtMs = 0;
  let later: ReturnType<typeof setTimeout> | null = null;

  const draw = (): void => {
    if (later !== null) clearTimeout(later);
    later = null;
    shownAtMs = Date.now();
    shown = standing.map(({ known, silent, last, line, link }) => ({
      ...known,
      silent,
      last: { ...last },
      line,
      canTare: link?.tare != null,
    }));
    for (const watcher of watchers) watcher();
  };
  /** Ten or fifty readings a second are too many to draw. */
  const drawSoon = (): void => {
    later ??= setTimeout(draw, Math.max(0, shownAtMs + SHOWN_EVERY_MS - Date.now()));
  };
  const keep = (): void =>
    remember(
      storage,
      standing.map(({ known }) => known),
    );
  const of = (id: string): Standing | undefined => standing.find(({ known }) => known.id === id);

  const eventsOf = (one: Standing): LinkEvents => ({
    onReading: (reading) => {
      one.last.g = { atMs: reading.atMs, value: reading.g, stable: reading.stable };
      one.silent = null;
      one.heardAtMs = Date.now();
      for (const listener of one.listeners) listener(reading);
      drawSoon();
    },
    onSilent: (why) => {
      one.silent = why;
      draw();
    },
    onLine: (line) => {
      one.line = line;
    },
  });

  const add = (known: KnownDevice): Standing => {
    const one: Standing = {
      known,
      heardAtMs: 0,
      silent: 'noReadings',
      last: {},
      line: null,
      link: null,
      listeners: new Set(),
    };
    standing.push(one);
    sweeping ??= setInterval(sweep, SWEEPS_EVERY_MS);
    return one;
  };
  let sweeping: ReturnType<typeof setInterval> | null = null;
  /** A cable to a scale that was switched off, or a bridge that died, says nothing of it. */
  const sweep = (): void => {
    const fell = standing.filter(
      ({ known, silent, heardAtMs }) =>
        silent === null &&
        known.kind === 'scale' &&
        SENDS_ON.includes(known.link) &&
        Date.now() - heardAtMs > SILENT_MS,
    );
    for (const one of fell) one.silent = 'noReadings';
    if (fell.length > 0) draw();
  };
  /** The ports that are open, by device: a serial port has no name to find it again by within one page. */
  const ports = new Map<string, SerialPort>();
  const open = (one: Standing, through: BluetoothDevice | SerialPort | null): void => {
    const { known } = one;
    const events = eventsOf(one);
    if (known.link === 'bluetooth' && through) one.link = bluetoothScale(through as BluetoothDevice, events);
    else if (known.link === 'serial' && through) {
      ports.set(known.id, through as SerialPort);
      one.link = serialScale(through as SerialPort, known, events);
    } else if (known.link === 'wedge') one.link = wedgeScale(keys, known.unit ?? 'g', events);
    draw();
  };

  /** Why a way to devices is closed on this page; null: it is open. */
  const closedWay = (link: LinkKind): WhySilent | null => {
    if (link !== 'bluetooth' && link !== 'serial') return null;
    if (!secure) return 'pageNotSecure';
    return (link === 'bluetooth' ? bluetooth : serial) === null ? 'browserCannot' : null;
  };

  const find: DeviceShelf['find'] = async (link, key) => {
    const closed = closedWay(link);
    if (closed !== null) return closed;
    if (link === 'bluetooth' && bluetooth) {
      const device = await chooseBluetoothScale(bluetooth);
      const before = standing.find(({ known }) => known.link === link && known.key === device.id);
      await before?.link?.close();
      const name = device.name === undefined || device.name === '' ? linkName[link] : device.name;
      open(before ?? add(newDevice(link, name, device.id)), device);
    } else if (link === 'serial' && serial) {
      const port = await serial.requestPort();
      const before = standing.find(({ known }) => ports.get(known.id) === port || isForgotten(known));
      await before?.link?.close();
      open(before ?? add(newDevice(link, linkName[link], null)), port);
    } else if (link === 'bridge') {
      heard.delete(key ?? '');
      add(newDevice(link, key ?? linkName[link], key ?? null));
    } else if (!standing.some(({ known }) => known.link === 'wedge')) {
      open(add(newDevice('wedge', linkName.wedge, null)), null);
    }
    keep();
    draw();
    return null;
  };
  /** A serial device that is remembered, and whose port is not open. */
  const isForgotten = (known: KnownDevice): boolean => known.link === 'serial' && !ports.has(known.id);

  /** A value of the bridge's: a weight goes to those who listen, whatever it is stands on the page. */
  const takeOne = (one: Standing, { value, unit, at, stable }: BridgeReading): void => {
    const atMs = at === undefined ? Date.now() : Date.parse(at);
    const mass = massUnits.find((mass) => mass === unit);
    if (mass) eventsOf(one).onReading({ atMs, g: value * gPerUnit[mass], stable: stable ?? null });
    else {
      const F_PER_C = 1.8;
      const F_AT_0 = 32;
      const isF = unit === '°F';
      one.last[isF ? '°C' : unit] = { atMs, value: isF ? (value - F_AT_0) / F_PER_C : value, stable: stable ?? null };
      one.silent = null;
      drawSoon();
    }
  };

  return {
    watch: (watcher) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    all: () => shown,
    heard: () => [...heard],
    find,
    change: (id, patch) => {
      const one = of(id);
      if (!one) return;
      one.known = { ...one.known, ...patch };
      keep();
      // Another rate, or another meaning, is another way of listening.
      const port = ports.get(id);
      if (('unit' in patch || 'baudRate' in patch) && one.link !== null) {
        const { link } = one;
        one.link = null;
        void link.close().then(() => open(one, port ?? null));
      }
      draw();
    },
    remove: (id) => {
      const at = standing.findIndex(({ known }) => known.id === id);
      const [one] = at === -1 ? [] : standing.splice(at, 1);
      ports.delete(id);
      void one?.link?.close();
      keep();
      draw();
    },
    tare: async (id) => {
      await of(id)?.link?.tare?.();
    },
    listen: (id, onReading) => {
      const listeners = of(id)?.listeners;
      listeners?.add(onReading);
      return () => listeners?.delete(onReading);
    },
    take: (readings) => {
      for (const reading of readings) {
        const own = standing.filter(({ known }) => known.link === 'bridge' && known.key === reading.device);
        for (const one of own) takeOne(one, reading);
        if (own.length > 0 || heard.has(reading.device)) continue;
        heard.add(reading.device);
        draw();
      }
    },
    resume: async () => {
      for (const known of remembered(storage)) add(known);
      draw();
      const devices = await (bluetooth && 'getDevices' in bluetooth ? bluetooth.getDevices().catch(() => []) : []);
      const free = [...(await (serial?.getPorts().catch(() => []) ?? []))];
      for (const one of [...standing]) {
        const { link, key } = one.known;
        const through =
          link === 'bluetooth' ? devices.find(({ id }) => id === key) : link === 'serial' ? free.shift() : undefined;
        const closed = closedWay(link);
        if (closed !== null) one.silent = closed;
        else if ((link === 'bluetooth' || link === 'serial') && !through) one.silent = 'findAgain';
        else if (link !== 'bridge') open(one, through ?? null);
      }
      draw();
    },
  };
}
