import { standingFacts } from '@tempera/core/facts';
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { MachineNews, MachinePort } from './ports.ts';
import { simulatedDevices } from './simulatedDevices.ts';
import { usePull, type PullDraft } from './usePull.ts';

const begin = Date.parse('2031-05-04T06:30:00Z');
const draft: PullDraft = {
  id: 'pull',
  startedAtMs: begin,
  stoppedAtS: null,
  doseG: 18,
  groupId: 'group',
  setting: 30,
  byScale: false,
};

beforeEach(() => {
  vi.useFakeTimers();
  vi.setSystemTime(begin);
  localStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const station = (id: string) => ({
  seed: 7,
  siteId: 'site',
  groupId: `group of ${id}`,
  grinder: {
    id,
    dial: { stepMarks: 1, finer: 'down' as const, range: { min: 1, max: 60 } },
    seedSetting: 30,
    secondsPerMark: 2.5,
    rateGps: 2,
  },
  recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 },
});

const pass = (ms: number): void =>
  act(() => {
    vi.advanceTimersByTime(ms);
  });

describe('a pull at a machine that tells of its shots', () => {
  const machineOf = () => {
    const listeners = new Set<Parameters<MachinePort['listen']>[0]>();
    const machine: MachinePort = {
      listen: (onNews) => {
        listeners.add(onNews);
        return () => listeners.delete(onNews);
      },
    };
    return { machine, tell: (news: MachineNews) => [...listeners].forEach((listener) => listener(news)), listeners };
  };

  it('is over when the machine says so, to the tenth at which it did, and keeps its count', () => {
    const { machine, tell, listeners } = machineOf();
    const { result, rerender } = renderHook((known: MachinePort | null) => usePull('grinder', null, null, known), {
      initialProps: null as MachinePort | null,
    });
    act(() => result.current.start(draft));
    pass(3_000);
    // The page heard of it a moment late; the machine was on before the hand told the app.
    rerender(machine);
    tell({ atMs: begin - 500, runs: true });
    tell({ atMs: begin + 20_000, count: 131 });
    pass(25_000);
    expect(result.current.now.get()).toMatchObject({ volumeCount: 131, settled: false });
    tell({ atMs: begin + 27_430, runs: false });
    tell({ atMs: begin + 27_500, count: 182 });
    pass(200);
    expect(result.current.live?.draft.stoppedAtS).toBe(27.4);
    expect(result.current.now.get()).toMatchObject({ elapsedS: 27.4, volumeCount: 182, settled: true });
    act(() => result.current.end());
    expect(listeners.size).toBe(0);
  });

  it('is not over while a relay says over and over that nothing runs yet, nor by the end of the rinse before', () => {
    const { machine, tell } = machineOf();
    const { result } = renderHook(() => usePull('grinder', null, null, machine));
    act(() => result.current.start(draft));
    pass(200);
    tell({ atMs: begin - 2_000, runs: true });
    tell({ atMs: begin - 500, runs: false });
    for (const atS of [0.5, 1.5]) tell({ atMs: begin + 1_000 * atS, runs: false });
    pass(2_000);
    expect(result.current.live?.draft.stoppedAtS).toBeNull();
    tell({ atMs: begin + 2_500, runs: true });
    tell({ atMs: begin + 29_000, runs: false });
    pass(200);
    expect(result.current.live?.draft.stoppedAtS).toBe(29);
    act(() => result.current.end());
  });

  it('is over when a hand says so first', () => {
    const { machine, tell } = machineOf();
    const { result } = renderHook(() => usePull('grinder', null, null, machine));
    act(() => result.current.start(draft));
    pass(26_000);
    act(() => result.current.stop());
    tell({ atMs: begin + 27_000, runs: false });
    pass(200);
    expect(result.current.live?.draft.stoppedAtS).toBe(26);
    act(() => result.current.end());
  });
});

describe('a pull by the clock alone', () => {
  it('runs, stops to a tenth, and ends', () => {
    const { result } = renderHook(() => usePull('grinder', null, null));
    expect(result.current.pulling).toBe(false);
    act(() => result.current.start(draft));
    pass(12_340);
    expect(result.current.now.get()?.elapsedS).toBeCloseTo(12.3, 1);
    act(() => result.current.stop());
    pass(5_000);
    expect(result.current.live).toMatchObject({ elapsedS: 12.3, settled: true });
    act(() => result.current.end());
    expect(result.current).toMatchObject({ live: null, pulling: false });
    expect(localStorage.getItem('tempera.pull.grinder')).toBeNull();
  });

  it('goes on after a reload where it was, and only at its own grinder', () => {
    const before = renderHook(() => usePull('grinder', null, null));
    act(() => before.result.current.start(draft));
    pass(5_000);
    before.unmount();
    pass(5_000);
    const after = renderHook(() => usePull('grinder', null, null));
    pass(100);
    expect(after.result.current.now.get()?.elapsedS).toBeCloseTo(10.1, 1);
    expect(renderHook(() => usePull('another', null, null)).result.current.pulling).toBe(false);
  });

  it('stops once: a second stop changes nothing', () => {
    const { result } = renderHook(() => usePull('grinder', null, null));
    act(() => result.current.start(draft));
    pass(8_000);
    act(() => result.current.stop());
    pass(3_000);
    act(() => result.current.stop());
    pass(100);
    expect(result.current.live?.elapsedS).toBe(8);
  });

  it('is not upset by a draft that cannot be read', () => {
    localStorage.setItem('tempera.pull.grinder', '{');
    expect(renderHook(() => usePull('grinder', null, null)).result.current.pulling).toBe(false);
  });
});

describe('a bench with a pull under way', () => {
  it('is drawn anew when something happens, and not with every sample', () => {
    let drawn = 0;
    const devices = simulatedDevices(station('house'), standingFacts([]), 1);
    const { result } = renderHook(() => {
      drawn += 1;
      return usePull('house', devices, null);
    });
    act(() => result.current.start({ ...draft, byScale: true }));
    pass(1_000);
    const before = drawn;
    pass(20_000);
    expect(drawn - before).toBeLessThanOrEqual(1);
    expect(result.current.now.get()?.trace.massG.length).toBeGreaterThan(200);
    act(() => result.current.stop());
    pass(8_000);
    // The stop, the drip every half second, and the end of it.
    expect(result.current.live).toMatchObject({ settled: true });
    expect(drawn - before).toBeLessThan(25);
  });
});

describe('a pull that was begun before the page knew what it is connected to', () => {
  interface Known {
    devices: ReturnType<typeof simulatedDevices> | null;
    count: number | null;
  }
  const nothingYet: Known = { devices: null, count: null };

  it('is taken up with the machine, which stops by itself where it is set to', () => {
    const devices = simulatedDevices(station('house'), standingFacts([]), 1);
    const { result, rerender } = renderHook((known: Known) => usePull('late', known.devices, known.count), {
      initialProps: nothingYet,
    });
    act(() => result.current.start({ ...draft, id: 'late', startedAtMs: Date.now() }));
    pass(500);
    rerender({ devices, count: null });
    pass(500);
    rerender({ devices, count: 120 });
    pass(60_000);
    expect(result.current.live?.draft.stoppedAtS).toBeGreaterThan(10);
    expect(result.current.live?.draft.stoppedAtS).toBeLessThan(50);
    expect(result.current.live?.cupG).toBeGreaterThan(15);
  });
});

describe('a cup that nobody tared', () => {
  it('is taken off the reading from the first moment', () => {
    const pulls = ([null, 'untared'] as const).map((mishap) => {
      const devices = simulatedDevices(station('house'), standingFacts([]), 1);
      const { result } = renderHook(() => usePull(`house ${mishap ?? ''}`, devices, null));
      act(() => result.current.start({ ...draft, startedAtMs: Date.now(), byScale: true, mishap }));
      return result;
    });
    const cupG = () => pulls.map(({ current }) => current.now.get()?.trace.massG.at(-1) ?? NaN);
    pass(150);
    for (const g of cupG()) expect(Math.abs(g)).toBeLessThan(0.5);
    pass(20_000);
    const [tared, untared] = cupG();
    expect(tared).toBeGreaterThan(10);
    expect(untared).toBeCloseTo(tared ?? NaN, 0);
  });
});

describe('two benches at once on one tablet', () => {
  const open = (id: string) => {
    const devices = simulatedDevices(station(id), standingFacts([]), 1);
    const bench = renderHook(() => usePull(id, devices, null));
    const now = Date.now();
    act(() => bench.result.current.start({ ...draft, id: `pull ${id}`, startedAtMs: now, byScale: true }));
    return bench;
  };

  it('keep their streams apart: one stops and settles while the other runs on', () => {
    const house = open('house');
    pass(10_000);
    const guest = open('guest');
    pass(8_000);
    act(() => house.result.current.stop());
    pass(5_000);
    expect(house.result.current.live).toMatchObject({ elapsedS: 18, settled: true });
    expect(guest.result.current.live?.settled).toBe(false);
    expect(guest.result.current.now.get()?.elapsedS).toBeCloseTo(13, 1);
    const [first, second] = [house, guest].map(({ result }) => result.current.now.get()?.trace.massG ?? []);
    expect(first).toHaveLength(211);
    expect(Math.abs((second?.length ?? 0) - 131)).toBeLessThanOrEqual(1);
    expect(first?.slice(0, 100)).not.toEqual(second?.slice(0, 100));
    act(() => house.result.current.end());
    expect(house.result.current.pulling).toBe(false);
    expect(guest.result.current.pulling).toBe(true);
  });
});

describe('a pull that was recorded elsewhere', () => {
  it('goes through the same port: a cup that nobody tared is taken off, and a reload loses nothing', () => {
    const CUP_G = 62;
    const massG = Array.from({ length: 300 }, (_, i) => CUP_G + Math.max(0, Math.min(36, 1.6 * (i / 10 - 6))));
    const recorded = { ...draft, stoppedAtS: 28.5, byScale: true, recorded: { hz: 10, massG } };
    const before = renderHook(() =>
      usePull('grinder', simulatedDevices(station('grinder'), standingFacts([]), 1), null),
    );
    act(() => before.result.current.start(recorded));
    before.unmount();
    const { result } = renderHook(() => usePull('grinder', null, null));
    pass(100);
    expect(result.current.live).toMatchObject({ elapsedS: 28.5, settled: true, lost: false });
    expect(result.current.live?.trace.massG.at(-1)).toBeCloseTo(36, 6);
  });
});
