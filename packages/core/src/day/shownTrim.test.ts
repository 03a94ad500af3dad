import { describe, expect, it } from 'vitest';
import { aCase, aShot } from '../calibration/testCases.ts';
import { shownTrimG } from './shownTrim.ts';

/** 18 g, 25-30 s, a mark is 2.5 s: coarse enough that a house weighs 0.2 to 0.4 g otherwise between two of them. */
const shown = (shots: readonly [doseG: number, timeS: number][], trimG = 0): number =>
  shownTrimG(aCase({ trimG, shots: shots.map(([doseG, timeS]) => aShot({ doseG, timeS })) }));

describe('the trim that doses show', () => {
  it('is none for a dose that is a little off where nobody had reason to ask for it', () => {
    expect(shown([[18.2, 27.4]])).toBe(0);
    expect(
      shown([
        [18, 27.4],
        [17.8, 27],
      ]),
    ).toBe(0);
  });

  it('is a smaller dose after two slow shots, a larger one after two fast ones, never the other way round', () => {
    const slow: [number, number][] = [
      [18, 29.4],
      [18, 29.6],
    ];
    expect(shown([...slow, [17.7, 28]])).toBeCloseTo(-0.3, 6);
    expect(shown([...slow, [18.3, 29]])).toBe(0);
    const fast: [number, number][] = [
      [18, 25.4],
      [18, 25.2],
    ];
    expect(shown([...fast, [18.3, 27]])).toBeCloseTo(0.3, 6);
  });

  it("is what shows twice, and over with the recipe's own dose", () => {
    expect(
      shown([
        [18, 27.4],
        [18.3, 27.4],
        [18.3, 27.2],
      ]),
    ).toBeCloseTo(0.3, 6);
    expect(
      shown([
        [18, 27.4],
        [18.3, 27.4],
        [18.3, 27.2],
        [18, 27.3],
      ]),
    ).toBe(0);
  });

  it('is the one that was told, as long as the doses agree', () => {
    expect(shown([[18.2, 27.4]], 0.2)).toBeCloseTo(0.2, 6);
    expect(shown([[18, 27.4]], 0.2)).toBe(0);
  });
});
