import { describe, expect, it } from 'vitest';
import { nextVolumeCount } from './volumeCount.ts';

describe('programming a volume button', () => {
  it('scales the count by the mean of the checked yields at first', () => {
    // By hand: mean 32 g at 80 counts is 0.4 g a count; 4 g short are 10 counts.
    expect(
      nextVolumeCount(
        [31, 33].map((yieldG) => ({ count: 80, yieldG })),
        36,
      ),
    ).toBe(90);
  });

  it('uses the slope between counts once two were tried', () => {
    // By hand: 10 counts made 5 g, so 0.5 g a count; 1 g over is 2 counts back.
    const shots = [
      { count: 80, yieldG: 32 },
      { count: 90, yieldG: 37 },
    ];
    expect(nextVolumeCount(shots, 36)).toBe(88);
  });

  it('stays where the yield is right, and never leaps', () => {
    expect(nextVolumeCount([{ count: 80, yieldG: 36.1 }], 36)).toBe(80);
    expect(nextVolumeCount([{ count: 80, yieldG: 4 }], 36)).toBe(104);
    expect(nextVolumeCount([{ count: 80, yieldG: 90 }], 36)).toBe(56);
  });

  it('lands on the yield of a machine whose puck keeps water back', () => {
    // Its own little machine: half a gram of water a count, 14 g of it stay in the puck.
    const shots: { count: number; yieldG: number }[] = [];
    let count = 60;
    for (let i = 0; i < 6; i += 1) {
      shots.push({ count, yieldG: Math.max(0.1, 0.5 * count - 14) });
      count = nextVolumeCount(shots, 36);
    }
    expect(count).toBe(100);
  });

  it('refuses to guess from nothing', () => {
    expect(() => nextVolumeCount([], 36)).toThrow('no shot');
    expect(() => nextVolumeCount([{ count: 0, yieldG: 30 }], 36)).toThrow('count');
  });
});
