import { describe, expect, it, vi } from 'vitest';
import { simulatedAir, simulatedMachine, simulatedScale } from './simulatedStandIns.ts';

const steam = { name: 'Steam', unit: 'bar' as const, min: 1, max: 1.5 };
const groups = [
  { id: 'a', name: 'Group 1' },
  { id: 'b', name: 'Group 2' },
];

describe('the simulated machine', () => {
  const machine = simulatedMachine('fern', 25);
  const steamAt = (minutes: number): number => machine.gauges([steam], minutes)[0]?.value ?? NaN;
  it('comes to its limits by the usual minute and stays inside them', () => {
    expect(steamAt(2)).toBeLessThan(steam.min);
    for (const minutes of [25, 60, 600]) {
      expect(steamAt(minutes)).toBeGreaterThanOrEqual(steam.min);
      expect(steamAt(minutes)).toBeLessThanOrEqual(steam.max);
    }
  });

  it('begins with groups as cold as the room, and ends with each at its own brew temperature', () => {
    expect(machine.groups(groups, 0).map(({ value }) => value)).toEqual([20, 20]);
    const hot = machine.groups(groups, 60).map(({ value }) => value);
    for (const value of hot) expect(Math.abs(value - 93)).toBeLessThan(4);
    expect(hot[0]).not.toBe(hot[1]);
    expect(
      simulatedMachine('moss', 25)
        .groups(groups, 60)
        .map(({ value }) => value),
    ).toEqual(hot);
  });
});

describe('the simulated scale and air', () => {
  it('shows a known weight to a few tenths', () => {
    for (let i = 0; i < 20; i += 1) {
      vi.setSystemTime(1_000 * i);
      expect(Math.abs(simulatedScale('bar').weigh(200) - 200)).toBeLessThan(0.3);
    }
    vi.useRealTimers();
  });

  it('is that of a glasshouse at every hour', () => {
    for (let hour = 0; hour < 24; hour += 1) {
      const { tempC, humidityPct } = simulatedAir('site', Date.UTC(2031, 4, 4, hour));
      expect(tempC).toBeGreaterThan(10);
      expect(tempC).toBeLessThan(35);
      expect(humidityPct).toBeGreaterThan(40);
      expect(humidityPct).toBeLessThanOrEqual(100);
    }
  });
});
