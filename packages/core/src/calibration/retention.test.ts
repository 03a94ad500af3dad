import { describe, expect, it } from 'vitest';
import { grindThrough, oldShare, purgeAdviceG } from './retention.ts';

describe('grounds held in the chute', () => {
  it('lets old grounds decay with what is ground through', () => {
    // By hand: 4 + (0 - 4) exp(-5 / 5) = 4 - 4 * 0.367879
    expect(grindThrough({ x: 0 }, 4, 5, 5).x).toBeCloseTo(2.528482, 6);
  });

  it('averages the old share over the dose', () => {
    // By hand: (5 / 18) (1 - exp(-18 / 5)) = 0.277778 * 0.972676
    expect(oldShare(18, 0, 5)).toBeCloseTo(0.270188, 6);
    // After 10 g of purge: times exp(-2) = 0.135335
    expect(oldShare(18, 10, 5)).toBeCloseTo(0.036566, 6);
  });

  it('agrees with a slow, obvious simulation gram by gram', () => {
    const retentionG = 4;
    const stepG = 0.001;
    let oldHeld = 1;
    let oldInDose = 0;
    for (let ground = 0; ground < 18; ground += stepG) {
      oldInDose += oldHeld * stepG;
      oldHeld -= (oldHeld * stepG) / retentionG;
    }
    expect(oldShare(18, 0, retentionG)).toBeCloseTo(oldInDose / 18, 3);
  });

  it('asks for a purge that leaves less than 5 %, and for no more than half a gram above it', () => {
    for (const retentionG of [1, 2, 3, 5, 8, 12]) {
      const purgeG = purgeAdviceG(18, retentionG);
      expect(oldShare(18, purgeG, retentionG)).toBeLessThanOrEqual(0.05);
      if (purgeG > 0) expect(oldShare(18, purgeG - 0.5, retentionG)).toBeGreaterThan(0.05);
    }
  });

  it('asks for none where next to nothing is held', () => {
    expect(purgeAdviceG(18, 0)).toBe(0);
    expect(purgeAdviceG(18, 0.5)).toBe(0);
  });
});
