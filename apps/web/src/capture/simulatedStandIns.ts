import { gaussian, MS_PER_DAY, seededRandom, seedFrom } from '@tempera/core/numbers';
import type { GaugeReading } from '@tempera/core/facts';
import { brewWaterC } from '@tempera/core/practice';

/** Small simulated stand-ins for the bar's other devices: machine, scale, thermo-hygrometer. Readings hang on the clock only. */

/** A gauge and its limits. */
export interface GaugeOf {
  name: string;
  unit: 'bar' | '°C';
  min: number;
  max: number;
}

const tenth = (value: number): number => Math.round(value * 10) / 10;

export interface MachineReader {
  /** What its gauges show after so many minutes. */
  gauges(gauges: readonly GaugeOf[], minutesOn: number): GaugeReading[];
  /** How hot the water of its groups is by then, °C. */
  groups(groups: readonly { id: string; name: string }[], minutesOn: number): GaugeReading[];
}

const ROOM_C = 20;

/** Boiler pressure and temperature rise towards the middle of their limits; at the usual minute they are inside. */
export function simulatedMachine(machineId: string, warmUpMin: number): MachineReader {
  const random = seededRandom(seedFrom(`machine ${machineId}`));
  const quirk = 0.02 * gaussian(random);
  const TIME_CONSTANTS = 3;
  const warmAfter = (minutesOn: number): number => 1 - Math.exp((-TIME_CONSTANTS * minutesOn) / warmUpMin);
  return {
    gauges: (gauges, minutesOn) =>
      gauges.map(({ name, min, max }) => ({
        gauge: name,
        value: tenth(((min + max) / 2) * (warmAfter(minutesOn) + 0.04) * (1 + quirk)),
      })),
    // The metal of a group is through about when the gauges say so; before that its water comes cold.
    groups: (groups, minutesOn) =>
      groups.map(({ id, name }) => ({
        gauge: name,
        value: tenth(ROOM_C + (brewWaterC(id) - ROOM_C) * warmAfter(2 * minutesOn)),
      })),
  };
}

/** A scale with a known weight on it: to 0.1 g, with a little noise of its own. */
export function simulatedScale(scaleId: string): { weigh(knownG: number): number } {
  const random = seededRandom(seedFrom(`scale ${scaleId} ${Date.now()}`));
  const SCALE_SD_G = 0.05;
  return { weigh: (knownG) => tenth(knownG + SCALE_SD_G * gaussian(random)) };
}

/** The glasshouse through the day: warm and damp at noon, cooler and damper at night. */
export function simulatedAir(siteId: string, atMs: number): { tempC: number; humidityPct: number } {
  const random = seededRandom(seedFrom(`air ${siteId} ${Math.floor(atMs / MS_PER_DAY)}`));
  const day = Math.sin(2 * Math.PI * ((atMs % MS_PER_DAY) / MS_PER_DAY - 0.3));
  return {
    tempC: tenth(22 + 4 * day + gaussian(random)),
    humidityPct: Math.round(70 - 8 * day + 3 * gaussian(random)),
  };
}
