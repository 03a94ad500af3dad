import { standingFacts } from '@tempera/core/facts';
import type { Learned } from '@tempera/contract/bar';
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

  it('leave this morning half done, and planned', async () => {
    const morning = morningOf(standingFacts((await ines.bar()).steps), Date.now());
    expect(morning!.people).toHaveLength(2);
    expect(morning!.opensAtMs).toBeGreaterThan(Date.now());
  });
});
