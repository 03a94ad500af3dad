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
  /** Every other value of a device as it comes: of gauges, air, a machine. */
  hear: (id: string, onValue: (unit: ReadingUnit, told: LastValue) => void) => () => void;
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
  valueListeners: Set<(unit: ReadingUnit, told: LastValue) => void>;
}

const F_PER_C = 1.8;
const F_AT_0 = 32;

/** What pages are shown of the devices, no oftener than they can draw: ten or fifty readings a second are too many. */
class ShownDevices {
  shown: readonly DeviceNow[] = [];
  private readonly standing: readonly Standing[];
  private readonly watchers = new Set<() => void>();
  private shownAtMs = 0;
  private later: ReturnType<typeof setTimeout> | null = null;

  constructor(standing: readonly Standing[]) {
    this.standing = standing;
  }

  watch(watcher: () => void): () => void {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  }

  draw(): void {
    if (this.later !== null) clearTimeout(this.later);
    this.later = null;
    this.shownAtMs = Date.now();
    this.shown = this.standing.map(({ known, silent, last, line, link }) => ({
      ...known,
      silent,
      last: { ...last },
      line,
      canTare: link?.tare != null,
    }));
    for (const watcher of this.watchers) watcher();
  }

  drawSoon(): void {
    this.later ??= setTimeout(() => this.draw(), Math.max(0, this.shownAtMs + SHOWN_EVERY_MS - Date.now()));
  }
}

/** The shelf over what a browser gives. */
export const deviceShelf = (parts: DeviceParts): DeviceShelf => new Shelf(parts);

class Shelf implements DeviceShelf {
  private readonly parts: DeviceParts;
  private readonly standing: Standing[] = [];
  /** Names that speak through a bridge, and nobody has taken. */
  private readonly speaking = new Set<string>();
  /** The ports that are open, by device: a serial port has no name to find it again by within one page. */
  private readonly ports = new Map<string, SerialPort>();
  private readonly view = new ShownDevices(this.standing);
  private sweeping: ReturnType<typeof setInterval> | null = null;

  constructor(parts: DeviceParts) {
    this.parts = parts;
  }

  watch = (watcher: () => void): (() => void) => this.view.watch(watcher);

  all = (): readonly DeviceNow[] => this.view.shown;

  heard = (): readonly string[] => [...this.speaking];

  async find(link: LinkKind, key?: string): Promise<WhySilent | null> {
    const closed = this.closedWay(link);
    if (closed !== null) return closed;
    const { bluetooth, serial } = this.parts;
    if (link === 'bluetooth' && bluetooth) await this.findBluetooth(bluetooth);
    else if (link === 'serial' && serial) await this.findSerial(serial);
    else if (link === 'bridge') {
      this.speaking.delete(key ?? '');
      this.add(newDevice(link, key ?? linkName[link], key ?? null));
    } else if (!this.standing.some(({ known }) => known.link === 'wedge')) {
      this.open(this.add(newDevice('wedge', linkName.wedge, null)), null);
    }
    this.keep();
    this.view.draw();
    return null;
  }

  private async findBluetooth(bluetooth: Bluetooth): Promise<void> {
    const device = await chooseBluetoothScale(bluetooth);
    const before = this.standing.find(({ known }) => known.link === 'bluetooth' && known.key === device.id);
    await before?.link?.close();
    const name = device.name === undefined || device.name === '' ? linkName.bluetooth : device.name;
    this.open(before ?? this.add(newDevice('bluetooth', name, device.id)), device);
  }

  private async findSerial(serial: Serial): Promise<void> {
    const port = await serial.requestPort();
    /** One that is remembered, and whose port is not open. */
    const isForgotten = ({ link, id }: KnownDevice): boolean => link === 'serial' && !this.ports.has(id);
    const before = this.standing.find(({ known }) => this.ports.get(known.id) === port || isForgotten(known));
    await before?.link?.close();
    this.open(before ?? this.add(newDevice('serial', linkName.serial, null)), port);
  }

  change: DeviceShelf['change'] = (id, patch) => {
    const one = this.of(id);
    if (!one) return;
    one.known = { ...one.known, ...patch };
    this.keep();
    // Another rate, or another meaning, is another way of listening.
    const port = this.ports.get(id);
    if (('unit' in patch || 'baudRate' in patch) && one.link !== null) {
      const { link } = one;
      one.link = null;
      void link.close().then(() => this.open(one, port ?? null));
    }
    this.view.draw();
  };

  remove = (id: string): void => {
    const at = this.standing.findIndex(({ known }) => known.id === id);
    const [one] = at === -1 ? [] : this.standing.splice(at, 1);
    this.ports.delete(id);
    void one?.link?.close();
    this.keep();
    this.view.draw();
  };

  async tare(id: string): Promise<void> {
    await this.of(id)?.link?.tare?.();
  }

  listen: DeviceShelf['listen'] = (id, onReading) => {
    const listeners = this.of(id)?.listeners;
    listeners?.add(onReading);
    return () => listeners?.delete(onReading);
  };

  hear: DeviceShelf['hear'] = (id, onValue) => {
    const listeners = this.of(id)?.valueListeners;
    listeners?.add(onValue);
    return () => listeners?.delete(onValue);
  };

  take = (readings: readonly BridgeReading[]): void => {
    for (const reading of readings) {
      const own = this.standing.filter(({ known }) => known.link === 'bridge' && known.key === reading.device);
      for (const one of own) this.takeOne(one, reading);
      if (own.length > 0 || this.speaking.has(reading.device)) continue;
      this.speaking.add(reading.device);
      this.view.draw();
    }
  };

  async resume(): Promise<void> {
    const { bluetooth, serial, storage } = this.parts;
    for (const known of remembered(storage)) this.add(known);
    this.view.draw();
    const devices = await (bluetooth && 'getDevices' in bluetooth ? bluetooth.getDevices().catch(() => []) : []);
    const free = [...(await (serial?.getPorts().catch(() => []) ?? []))];
    for (const one of [...this.standing]) {
      const { link, key } = one.known;
      const through = {
        bluetooth: () => devices.find(({ id }) => id === key),
        serial: () => free.shift(),
        wedge: () => undefined,
        bridge: () => undefined,
      }[link]();
      const closed = this.closedWay(link);
      if (closed !== null) one.silent = closed;
      else if ((link === 'bluetooth' || link === 'serial') && !through) one.silent = 'findAgain';
      else if (link !== 'bridge') this.open(one, through ?? null);
    }
    this.view.draw();
  }

  private of(id: string): Standing | undefined {
    return this.standing.find(({ known }) => known.id === id);
  }

  private keep(): void {
    remember(
      this.parts.storage,
      this.standing.map(({ known }) => known),
    );
  }

  private add(known: KnownDevice): Standing {
    const one: Standing = {
      known,
      heardAtMs: 0,
      silent: 'noReadings',
      last: {},
      line: null,
      link: null,
      listeners: new Set(),
      valueListeners: new Set(),
    };
    this.standing.push(one);
    this.sweeping ??= setInterval(() => this.sweep(), SWEEPS_EVERY_MS);
    return one;
  }

  private open(one: Standing, through: BluetoothDevice | SerialPort | null): void {
    const { known } = one;
    const events = this.eventsOf(one);
    if (known.link === 'bluetooth' && through) one.link = bluetoothScale(through as BluetoothDevice, events);
    else if (known.link === 'serial' && through) {
      this.ports.set(known.id, through as SerialPort);
      one.link = serialScale(through as SerialPort, known, events);
    } else if (known.link === 'wedge') one.link = wedgeScale(this.parts.keys, known.unit ?? 'g', events);
    this.view.draw();
  }

  private eventsOf(one: Standing): LinkEvents {
    return {
      onReading: (reading) => {
        one.last.g = { atMs: reading.atMs, value: reading.g, stable: reading.stable };
        one.silent = null;
        one.heardAtMs = Date.now();
        for (const listener of one.listeners) listener(reading);
        this.view.drawSoon();
      },
      onSilent: (why) => {
        one.silent = why;
        this.view.draw();
      },
      onLine: (line) => {
        one.line = line;
      },
    };
  }

  /** A value of the bridge's: a weight goes to those who listen, whatever it is stands on the page. */
  private takeOne(one: Standing, { value, unit, at, stable }: BridgeReading): void {
    const atMs = at === undefined ? Date.now() : Date.parse(at);
    const mass = massUnits.find((known) => known === unit);
    if (mass) {
      this.eventsOf(one).onReading({ atMs, g: value * gPerUnit[mass], stable: stable ?? null });
      return;
    }
    const isF = unit === '°F';
    const told = { atMs, value: isF ? (value - F_AT_0) / F_PER_C : value, stable: stable ?? null };
    one.last[isF ? '°C' : unit] = told;
    one.silent = null;
    for (const listener of one.valueListeners) listener(isF ? '°C' : unit, told);
    this.view.drawSoon();
  }

  /** A cable to a scale that was switched off, or a bridge that died, says nothing of it. */
  private sweep(): void {
    const fell = this.standing.filter(
      ({ known, silent, heardAtMs }) =>
        silent === null &&
        known.kind === 'scale' &&
        SENDS_ON.includes(known.link) &&
        Date.now() - heardAtMs > SILENT_MS,
    );
    for (const one of fell) one.silent = 'noReadings';
    if (fell.length > 0) this.view.draw();
  }

  /** Why a way to devices is closed on this page; null: it is open. */
  private closedWay(link: LinkKind): WhySilent | null {
    if (link !== 'bluetooth' && link !== 'serial') return null;
    const { secure, [link]: way } = this.parts;
    if (!secure) return 'pageNotSecure';
    return way === null ? 'browserCannot' : null;
  }
}
