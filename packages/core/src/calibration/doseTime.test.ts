import { describe, expect, it } from 'vitest';
import { grindTimeForS } from './doseTime.ts';

describe('grind time', () => {
  it('follows the weighed rate', () => {
    // By hand: rate 18 / (9.3 - 0.3) = 2 g/s; 17 g needs 0.3 + 8.5 s
    expect(grindTimeForS([{ grindTimeS: 9.3, doseG: 18, x: 0 }], 17, 0)).toBeCloseTo(8.8, 10);
  });

  it('takes longer at a finer mark', () => {
    // By hand: 0.3 + 9 exp(0.02 * 5) = 0.3 + 9 * 1.105171 = 10.2465
    expect(grindTimeForS([{ grindTimeS: 9.3, doseG: 18, x: 0 }], 18, 5)).toBeCloseTo(10.2, 10);
  });

  it('averages several weighings and forgets the oldest', () => {
    const old = { grindTimeS: 9.3, doseG: 9, x: 0 };
    const fresh = Array.from({ length: 6 }, () => ({ grindTimeS: 9.3, doseG: 18, x: 0 }));
    expect(grindTimeForS([old, ...fresh], 18, 0)).toBeCloseTo(9.3, 10);
  });

  it('says nothing where nothing usable was weighed', () => {
    expect(grindTimeForS([], 18, 0)).toBeNull();
    expect(grindTimeForS([{ grindTimeS: 0.2, doseG: 18, x: 0 }], 18, 0)).toBeNull();
  });
});
