import { describe, expect, it } from 'vitest';
import { normalisedTime } from './normalisedTime.ts';

const recipe = { doseG: 18, yieldG: 36 };

describe('normalised shot time', () => {
  it('leaves a shot at exactly the recipe as it is', () => {
    const shot = normalisedTime({ doseG: 18, yieldG: 36, timeS: 27, firstDropS: 6 }, recipe);
    expect(shot.normalisedS).toBeCloseTo(27, 10);
    expect(shot).toMatchObject({ lnDose: 0, correctionVariance: 0 });
  });

  it('stretches the part after the first drop for a short yield', () => {
    // By hand: 6 + 20 * (36 / 30)^0.95 = 6 + 20 * 1.18910 = 29.782
    const { normalisedS, correctionVariance } = normalisedTime(
      { doseG: 18, yieldG: 30, timeS: 26, firstDropS: 6 },
      recipe,
    );
    expect(normalisedS).toBeCloseTo(29.782, 2);
    // The correction is itself a guess: (0.3 ln(36 / 30))^2 = (0.3 * 0.182322)^2
    expect(correctionVariance).toBeCloseTo(0.0029917, 6);
  });

  it('takes the first drop as 22 % of the shot when nobody saw it', () => {
    // By hand: 0.22 * 26 = 5.72; 5.72 + 20.28 * (36 / 40)^0.95 = 5.72 + 20.28 * 0.90475 = 24.068
    const { normalisedS } = normalisedTime({ doseG: 18, yieldG: 40, timeS: 26, firstDropS: null }, recipe);
    expect(normalisedS).toBeCloseTo(24.068, 2);
  });

  it('brings an over-dosed shot down by the dose exponent, and hands the dose on apart', () => {
    // By hand: 30 * (18 / 18.5)^2.2 = 30 * exp(-2.2 * 0.027399)
    const shot = normalisedTime({ doseG: 18.5, yieldG: 36, timeS: 30, firstDropS: 6 }, recipe);
    expect(shot.normalisedS).toBeCloseTo(28.245, 2);
    expect(shot.lnDose).toBeCloseTo(0.027399, 6);
    expect(Math.exp(shot.lnAtYieldS)).toBeCloseTo(30, 10);
  });

  it('never lets a first drop after the stop turn time around', () => {
    const { normalisedS } = normalisedTime({ doseG: 18, yieldG: 20, timeS: 20, firstDropS: 25 }, recipe);
    expect(normalisedS).toBeCloseTo(20, 10);
  });

  it.each(['doseG', 'yieldG', 'timeS'] as const)('refuses a %s of zero by name', (field) => {
    const shot = { doseG: 18, yieldG: 36, timeS: 27, firstDropS: null, [field]: 0 };
    expect(() => normalisedTime(shot, recipe)).toThrow(field);
  });
});
