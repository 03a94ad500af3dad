import { standingFacts } from '@tempera/core/facts';
import { lastMassG, readTrace } from '@tempera/core/capture';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { simulatedDevices } from './simulatedDevices.ts';

const station = {
  seed: 7,
  siteId: 'site',
  groupId: 'group',
  grinder: {
    id: 'grinder',
    dial: { stepMarks: 1, finer: 'down' as const, range: { min: 1, max: 60 } },
    seedSetting: 30,
    secondsPerMark: 2.5,
    rateGps: 2,
  },
  recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 },
};
const begin = Date.parse('2031-05-04T06:30:00Z');
const start = { id: 'pull', startedAtMs: begin, doseG: 18, stoppedAtS: null };

beforeEach(() => {
  vi.useFakeTimers();
  vi.setSystemTime(begin);
});
afterEach(() => vi.useRealTimers());

describe('simulated devices', () => {
  it('grind about the rate times the time, with readings on the way', async () => {
    const readings: number[] = [];
    const ground = simulatedDevices(station, standingFacts([]), 1).grinder.grind(9.3, (doseG) => readings.push(doseG));
    await vi.advanceTimersByTimeAsync(9_400);
    const doseG = await ground;
    expect(Math.abs(doseG - 18)).toBeLessThan(1);
    expect(readings.length).toBeGreaterThan(10);
    expect(readings.at(-1)).toBeCloseTo(doseG, 0);
  });

  it('give ten readings a second from the start of the pump', () => {
    const pull = simulatedDevices(station, standingFacts([]), 1).pull(start);
    vi.setSystemTime(begin + 20_000);
    expect(pull.elapsedS()).toBe(20);
    expect(pull.trace().massG).toHaveLength(201);
    expect(lastMassG(pull.trace())).toBeGreaterThan(10);
  });

  it('run as many times faster as they are told', () => {
    const pull = simulatedDevices(station, standingFacts([]), 10).pull(start);
    vi.setSystemTime(begin + 2_000);
    expect(pull.elapsedS()).toBe(20);
  });

  it('meet the same shot again after a reload', () => {
    const devices = simulatedDevices(station, standingFacts([]), 1);
    const first = devices.pull(start);
    vi.setSystemTime(begin + 12_340);
    first.trace();
    vi.setSystemTime(begin + 25_000);
    const reloaded = simulatedDevices(station, standingFacts([]), 1).pull(start);
    expect(reloaded.trace()).toEqual(first.trace());
  });

  it('drip after the stop, settle, and then stay as they are', () => {
    const pull = simulatedDevices(station, standingFacts([]), 1).pull(start);
    vi.setSystemTime(begin + 26_000);
    const atStopG = lastMassG(pull.trace());
    expect(pull.stopPump()).toBe(26);
    expect(pull.settled()).toBe(false);
    vi.setSystemTime(begin + 29_100);
    expect(pull.settled()).toBe(true);
    expect(lastMassG(pull.trace())).toBeGreaterThan(atStopG + 0.7);
    expect(pull.elapsedS()).toBe(26);
    const { length } = pull.trace().massG;
    vi.setSystemTime(begin + 600_000);
    expect(pull.trace().massG).toHaveLength(length);
    const reloaded = simulatedDevices(station, standingFacts([]), 1).pull({ ...start, stoppedAtS: 26 });
    expect(reloaded.trace()).toEqual(pull.trace());
  });

  it('end a forgotten pull by themselves', () => {
    const pull = simulatedDevices(station, standingFacts([]), 1).pull(start);
    vi.setSystemTime(begin + 3_600_000);
    expect(pull.elapsedS()).toBeLessThanOrEqual(240);
  });

  it('stop by themselves at the count of the button, and nobody can stop them again', () => {
    const pull = simulatedDevices(station, standingFacts([]), 1).pull({ ...start, stopsAtCount: 170 });
    vi.setSystemTime(begin + 60_000);
    const stoppedAtS = pull.stoppedAtS() ?? NaN;
    expect(stoppedAtS).toBeGreaterThan(15);
    expect(stoppedAtS).toBeLessThan(45);
    expect(pull.volumeCount()).toBeGreaterThanOrEqual(170);
    expect(pull.volumeCount()).toBeLessThanOrEqual(173);
    expect(pull.stopPump()).toBe(stoppedAtS);
    expect(pull.settled()).toBe(true);
  });

  describe('meet with mishaps', () => {
    const atEnd = (mishap: 'drift' | 'knock' | 'lost' | null) => {
      vi.setSystemTime(begin);
      const pull = simulatedDevices(station, standingFacts([]), 1).pull({ ...start, mishap });
      vi.setSystemTime(begin + 27_000);
      pull.stopPump();
      vi.setSystemTime(begin + 31_000);
      return { pull, trace: pull.trace() };
    };
    const sound = () => atEnd(null).trace;

    it('a scale that drifts ends a gram over', () => {
      const overG = lastMassG(atEnd('drift').trace) - lastMassG(sound());
      expect(overG).toBeGreaterThan(0.9);
      expect(overG).toBeLessThan(1.6);
    });

    it('a knock is felt for half a second, and the reading leaves it out', () => {
      const { trace } = atEnd('knock');
      const clean = readTrace({ ...trace, pumpOffS: 27 });
      expect(clean.signs).toEqual([{ kind: 'knock', atS: 12 }]);
      expect(clean.yieldG).toBeCloseTo(readTrace({ ...sound(), pumpOffS: 27 }).yieldG, 0);
    });

    it('a scale that goes silent leaves what it saw, and the clock runs on', () => {
      const { pull, trace } = atEnd('lost');
      expect(pull.lost()).toBe(true);
      expect(trace.massG).toHaveLength(121);
      expect(pull.elapsedS()).toBe(27);
      const read = readTrace({ ...trace, pumpOffS: 27 });
      expect(read.partial).toBe(true);
      expect(Number.isNaN(read.yieldG)).toBe(false);
    });
  });

  it('dose by weight more closely than by a straight edge', async () => {
    const offs = async (way: 'weighed' | 'levelled'): Promise<number> => {
      const doses: number[] = [];
      for (let i = 0; i < 60; i += 1) {
        vi.setSystemTime(begin + 20_000 * i);
        const dose = simulatedDevices(station, standingFacts([]), 1).grinder.doseBy(way, 18);
        await vi.advanceTimersByTimeAsync(8_000);
        doses.push(await dose);
      }
      return Math.sqrt(doses.reduce((sum, doseG) => sum + (doseG - 18) ** 2, 0) / doses.length);
    };
    expect(await offs('weighed')).toBeLessThan(0.15);
    expect(await offs('levelled')).toBeGreaterThan(0.25);
  });
});
