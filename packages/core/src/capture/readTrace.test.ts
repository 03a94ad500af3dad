import { describe, expect, it } from 'vitest';
import { expectedFinalG, findFirstDropS, flowGps, lastMassG } from './readTrace.ts';

/** Nothing for `dryS`, then a steady flow, sampled at 10 Hz. */
function steady(dryS: number, gps: number, untilS: number): number[] {
  return Array.from({ length: untilS * 10 + 1 }, (_, i) => Math.max(0, (i / 10 - dryS) * gps));
}

describe('reading a trace', () => {
  it('finds the first drop where the flow began', () => {
    expect(findFirstDropS({ hz: 10, massG: steady(6, 1.5, 20) })).toBeCloseTo(6, 1);
  });

  it('is not fooled by a noisy empty cup or a single knock', () => {
    const massG = steady(6, 1.5, 20).map((mass, i) => mass + (i % 3 === 0 ? 0.1 : -0.1));
    massG[20] = 4;
    expect(findFirstDropS({ hz: 10, massG })).toBeCloseTo(6, 0);
  });

  it('says nothing while nothing has surely fallen', () => {
    expect(findFirstDropS({ hz: 10, massG: [] })).toBeNull();
    expect(findFirstDropS({ hz: 10, massG: Array.from({ length: 100 }, () => 0.1) })).toBeNull();
    expect(findFirstDropS({ hz: 10, massG: Array.from({ length: 100 }, () => null) })).toBeNull();
  });

  it('reads a steady flow, and none before it', () => {
    const flow = flowGps({ hz: 10, massG: steady(6, 1.5, 20) });
    expect(flow[30]).toBe(0);
    expect(flow[150]).toBeCloseTo(1.5, 10);
  });

  it('bridges lost samples and never flows backwards', () => {
    const massG: (number | null)[] = steady(2, 2, 10);
    massG[50] = null;
    massG[99] = 0;
    const flow = flowGps({ hz: 10, massG });
    expect(flow.every((gps) => gps >= 0 && Number.isFinite(gps))).toBe(true);
  });

  it('expects what still drips after the stop', () => {
    // 14 s of 1.5 g/s are 21 g in the cup; about one second of flow is still to fall.
    expect(expectedFinalG({ hz: 10, massG: steady(6, 1.5, 20) })).toBeCloseTo(22.5, 6);
    expect(lastMassG({ hz: 10, massG: [1, 2, null] })).toBe(2);
    expect(lastMassG({ hz: 10, massG: [] })).toBe(0);
  });
});
