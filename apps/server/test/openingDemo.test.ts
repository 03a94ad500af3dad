import { standingFacts } from '@tempera/core/facts';
import type { Learned } from '@tempera/contract/bar';
import type { MorningTold } from '@tempera/contract/day';
import type { OpeningHistory } from '@tempera/contract/opening';
import { morningOf } from '@tempera/core/opening';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;

beforeAll(async () => {
  test = await startTestServer({ demo: true });
  ines = await new TestClient(test).signIn('Ines');
});
afterAll(() => test.close());

describe('six weeks of openings', () => {
  it('tell how long each kind of job takes', async () => {
    const { minutes } = (await ines.get<OpeningHistory>('/api/opening/history')).body;
    const mean = (kind: string): number => minutes[kind]!.reduce((sum, took) => sum + took, 0) / minutes[kind]!.length;
    expect(minutes['rinse']!.length).toBeGreaterThan(150);
    expect(mean('rinse')).toBeCloseTo(1.1, 0);
    expect(mean('hopper')).toBeCloseTo(1.8, 0);
    expect(mean('shot')).toBeGreaterThan(0.5);
    expect(mean('shot')).toBeLessThan(4);
  });

  it('tell what drips on each group after the stop', async () => {
    const { drips } = (await ines.get<Learned>('/api/bar/learned')).body;
    expect(drips.length).toBeGreaterThan(2);
    for (const { meanG, sdG, count } of drips) {
      expect(meanG).toBeGreaterThan(0.5);
      expect(meanG).toBeLessThan(4);
      expect(sdG).toBeLessThan(0.8);
      expect(count).toBeGreaterThan(0);
    }
  });

  it('tell when the bar was ready, of as many days as are asked for, and not of the morning in hand', async () => {
    const read = async (days: number) =>
      (await ines.get<{ mornings: MorningTold[] }>(`/api/day/mornings?days=${days}`)).body.mornings;
    const mornings = await read(43);
    expect(mornings.length).toBeGreaterThan(38);
    for (const { fromMs, readyMs, opensMs } of mornings) {
      expect(readyMs - fromMs).toBeGreaterThan(60 * 60_000);
      expect(Math.abs(opensMs - readyMs)).toBeLessThan(90 * 60_000);
    }
    const late = mornings.filter(({ readyMs, opensMs }) => readyMs > opensMs);
    expect(late.length).toBeGreaterThan(0);
    expect(late.length).toBeLessThan(10);
    expect((await read(8)).length).toBeLessThan(9);
  });

  it('leave this morning half done, and planned', async () => {
    const morning = morningOf(standingFacts((await ines.bar()).steps), Date.now());
    expect(morning!.people).toHaveLength(2);
    expect(morning!.opensAtMs).toBeGreaterThan(Date.now());
  });
});
