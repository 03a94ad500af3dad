import { describe, expect, it } from 'vitest';
import { emptyChute, grindShot } from './chute.ts';
import { oldShareSd } from './retention.ts';

const place = {
  dial: { stepMarks: 1, finer: 'down' as const, range: null },
  reference: 30,
  retentionG: 5,
  recipeDoseG: 18,
};
const shot = (setting: number, purgedG: number | null) => ({ setting, doseG: 18, purgedG });

describe('the grounds of a dose', () => {
  it('are all of one setting while the collar stays', () => {
    const first = grindShot(emptyChute, shot(28, null), place);
    expect(first.ground).toEqual({ x: 2, sd: 0, oldShare: 0 });
    expect(grindShot(first.after, shot(28, 0), place).ground).toEqual({ x: 2, sd: 0, oldShare: 0 });
  });

  it('are a blend after a move without a purge, and less of one with it', () => {
    const { after } = grindShot(emptyChute, shot(30, null), place);
    // By hand: old share (5 / 18) (1 - exp(-18 / 5)) = 0.270188; four marks finer are 4 (1 - 0.270188) = 2.91925.
    const unpurged = grindShot(after, shot(26, 0), place).ground;
    expect(unpurged.oldShare).toBeCloseTo(0.270188, 6);
    expect(unpurged.x).toBeCloseTo(2.91925, 5);
    expect(unpurged.sd).toBeCloseTo(4 * oldShareSd(18, 0, 5), 10);
    // Ten grams later exp(-2) of it is left.
    expect(grindShot(after, shot(26, 10), place).ground.oldShare).toBeCloseTo(0.036566, 6);
  });

  it('are taken as purged after a move when nobody said', () => {
    const { after } = grindShot(emptyChute, shot(30, null), place);
    expect(grindShot(after, shot(26, null), place).ground.oldShare).toBeLessThanOrEqual(0.05);
  });

  it('go on being a blend into the next dose', () => {
    const { after } = grindShot(emptyChute, shot(30, null), place);
    const blended = grindShot(after, shot(26, 0), place);
    // What hangs in the chute after that dose: 4 + (0 - 4) exp(-18 / 5) = 3.8907 marks.
    expect(blended.after.x).toBeCloseTo(3.890705, 5);
    const next = grindShot(blended.after, shot(26, 0), place).ground;
    expect(next.x).toBeGreaterThan(3.95);
    expect(next.oldShare).toBe(0);
  });
});
