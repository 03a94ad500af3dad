import { describe, expect, it } from 'vitest';
import { advise } from './advise.ts';
import type { Reason } from './reason.ts';
import { aCase, aShot } from './testCases.ts';

const reasonsOf = (...args: Parameters<typeof aCase>): Reason[] => advise(aCase(...args)).reasons;
const codesOf = (...args: Parameters<typeof aCase>): string[] => reasonsOf(...args).map(({ code }) => code);
const find = <C extends Reason['code']>(reasons: Reason[], code: C) =>
  reasons.find((reason): reason is Extract<Reason, { code: C }> => reason.code === code);

describe('reasons', () => {
  it('tell the normalised time and the miss, from the numbers', () => {
    const ran = (timeS: number) => find(reasonsOf({ shots: [aShot({ timeS })] }), 'ran');
    expect(ran(22)?.missS).toBeCloseTo(-3, 5);
    expect(ran(33.5)?.missS).toBeCloseTo(3.5, 5);
    expect(ran(27)).toMatchObject({ missS: 0, window: { min: 25, max: 30 } });
  });

  it('say what a mark is worth, with its doubt, and what staying would be worth', () => {
    const reasons = reasonsOf({ shots: [aShot({ timeS: 22 })] });
    const worth = find(reasons, 'markWorth');
    expect(worth?.seconds).toBeGreaterThan(0);
    expect(worth?.sdS).toBeLessThan(worth?.seconds ?? 0);
    expect(find(reasons, 'chances')).toMatchObject({ from: 30, setting: 28 });
    expect(find(reasons, 'purge')?.grams).toBeGreaterThan(0);
  });

  it('say why another shot tells more than a move', () => {
    const reasons = reasonsOf({ since: null, shots: [aShot({ timeS: 26 })] });
    const costs = find(reasons, 'notSureYet')?.costs;
    expect(costs?.stay).toBeLessThanOrEqual(costs?.move ?? 0);
  });

  it('count the sound shots of a lock', () => {
    const twice = reasonsOf({ shots: [aShot({ timeS: 27.3 }), aShot({ timeS: 27.5 })] });
    expect(find(twice, 'sureEnough')).toMatchObject({ shots: 2, setting: 30 });
    const once = reasonsOf({ since: { newBag: false, hours: 1 }, shots: [aShot({ timeS: 27.3 })] });
    expect(find(once, 'sureEnough')).toMatchObject({ shots: 1, setting: 30 });
  });

  it('name what stood in the way of evidence', () => {
    expect(codesOf({ shots: [aShot({ fault: 'channel' })] })).toContain('noEvidence');
    expect(codesOf({ shots: [aShot({ timeS: 50, fault: 'choke' })] })).toContain('choked');
    expect(find(reasonsOf({ shots: [aShot({ doseG: 17.2 })] }), 'doseOff')?.byG).toBeCloseTo(-0.8, 5);
    const blend = [aShot({ timeS: 22 }), aShot({ setting: 28, purgedG: 0 })];
    expect(codesOf({ shots: blend, retentionG: 8 })[0]).toBe('blend');
    expect(reasonsOf({ shots: [aShot()], standsAt: 27 })[0]).toEqual({ code: 'moved', to: 27 });
    expect(codesOf({ since: null })).toEqual(['neverHeld']);
  });
});
