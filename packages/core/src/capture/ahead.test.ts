import { describe, expect, it } from 'vitest';
import { aheadG } from './ahead.ts';
import { glassWeight } from './glass.ts';

const pace = { yieldG: 36, timeS: { min: 25, max: 31 }, firstDropS: 6 };
const steady = (untilS: number, gps: number) => ({
  hz: 10,
  massG: Array.from({ length: untilS * 10 + 1 }, (_, i) => Math.max(0, i / 10 - 6) * gps),
});

describe('ahead or behind', () => {
  it('is counted from an even flow to the middle of the gate, where no good shots are known', () => {
    // By hand: 36 g from 6 to 28 s is 1.636 g/s, so 16.36 g at 16 s.
    expect(aheadG(steady(16, 2), pace, null)).toBeCloseTo(20 - 16.36, 1);
    expect(aheadG(steady(16, 1.2), pace, null)).toBeCloseTo(12 - 16.36, 1);
  });

  it('is silent until something has fallen, and speaks where it should have', () => {
    expect(aheadG(steady(5, 2), pace, null)).toBeNull();
    expect(aheadG({ hz: 10, massG: Array.from({ length: 121 }, () => 0) }, pace, null)).toBeCloseTo(-9.8, 1);
  });

  it('is counted from the middle of the house’s good shots, where they are known', () => {
    const good = { hz: 2, lowG: [0, 0, 4, 8], highG: [0, 2, 6, 10], shots: 4 };
    expect(aheadG({ hz: 2, massG: [0, 1, 6.5] }, pace, good)).toBeCloseTo(1.5, 6);
    // Past their end the last of them holds.
    expect(aheadG({ hz: 2, massG: [0, 1, 6, 9, 12] }, pace, good)).toBeCloseTo(3, 6);
  });
});

describe('what a glass weighs', () => {
  it('is the usual until one was weighed, then leans to what was weighed', () => {
    const never = glassWeight([]);
    expect(never).toMatchObject({ count: 0 });
    expect(30 * never.gPerMl).toBeGreaterThan(20);
    expect(30 * never.gPerMl).toBeLessThan(26);
    const ten = glassWeight(Array.from({ length: 10 }, () => ({ yieldG: 34, glassMl: 40 })));
    expect(ten.gPerMl).toBeGreaterThan(0.84);
    expect(ten.gPerMl).toBeLessThan(0.85);
    expect(ten.sdShare).toBeLessThan(never.sdShare);
  });

  it('passes over what no glass can show', () => {
    expect(glassWeight([{ yieldG: 0, glassMl: 40 }])).toEqual(glassWeight([]));
  });
});
