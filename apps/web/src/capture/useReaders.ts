import type { Air } from '@tempera/core/capture';
import type { GaugeReading } from '@tempera/core/facts';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { useWelcome } from '../team/index.ts';
import { simulatedAir, simulatedMachine, simulatedScale, type GaugeOf } from './simulatedStandIns.ts';
import { scaleFor } from './useBenchDevices.ts';
import { useDeviceList } from './useShelf.ts';

/** A value older than this tells nothing of now. */
const FRESH_MS = 10 * MS_PER_MINUTE;

/** Something that can be read at a tap: what the tap is called, and what it gives. */
interface Reader<Asked, Told> {
  label: string;
  read: (asked: Asked) => Told;
}

/** The room's air by a thermo-hygrometer, °C and % relative; null where none speaks. */
export function useAir(siteId: string, nowMs: number): Air | null {
  const { data: welcome } = useWelcome();
  const told = useAirByDevice(nowMs);
  return welcome?.demo ? simulatedAir(siteId, nowMs) : told;
}

/** The same, by a real device only. */
export function useAirByDevice(nowMs: number): Air | null {
  const devices = useDeviceList();
  for (const { kind, last } of devices) {
    const [temp, humidity] = [last['°C'], last['%']];
    if (kind === 'air' && temp && humidity && nowMs - Math.min(temp.atMs, humidity.atMs) < FRESH_MS)
      return { tempC: temp.value, humidityPct: humidity.value };
  }
  return null;
}

interface MachineAsked {
  gauges: readonly GaugeOf[];
  groups: readonly { id: string; name: string }[];
  minutesOn: number;
  /** After how many minutes it is usually hot. */
  usualMin: number;
}

/** Reads a machine's gauges, where something is connected to them; `groups`: it tells the water of each group as well. */
export function useGauges(machineId: string): (Reader<MachineAsked, GaugeReading[]> & { groups: boolean }) | null {
  const { data: welcome } = useWelcome();
  const devices = useDeviceList();
  const demo = welcome?.demo ?? null;
  if (demo) {
    return {
      label: 'Read the simulated machine',
      groups: true,
      read: ({ gauges, groups, minutesOn, usualMin }) => {
        const machine = simulatedMachine(machineId, usualMin);
        return [...machine.gauges(gauges, minutesOn * demo.speed), ...machine.groups(groups, minutesOn * demo.speed)];
      },
    };
  }
  const own = devices.filter(({ kind, stationId }) => kind === 'gauge' && stationId === machineId);
  if (own.length === 0) return null;
  return {
    label: 'Read the gauges',
    groups: false,
    // A device tells a unit, not a gauge: the first gauge of that unit is the one it hangs on.
    read: ({ gauges }) =>
      own.flatMap(({ last }) =>
        (['bar', '°C'] as const).flatMap((unit) => {
          const [gauge, told] = [gauges.find((one) => one.unit === unit), last[unit]];
          return gauge && told ? [{ gauge: gauge.name, value: told.value }] : [];
        }),
      ),
  };
}

/** What a scale shows, to check it with a known weight; null where none is connected. */
export function useScaleToCheck(): Reader<number, number | null> | null {
  const { data: welcome } = useWelcome();
  const scale = scaleFor(useDeviceList(), []);
  if (welcome?.demo) {
    return {
      label: 'Weigh it on the simulated scale',
      read: (knownG) => simulatedScale('bar').weigh(knownG),
    };
  }
  return scale && { label: `Read ${scale.name}`, read: () => scale.last.g?.value ?? null };
}
