import { describe, expect, it } from 'vitest';
import { usualPolicy, type AdviceCase } from './adviceCase.ts';
import { advise } from './advise.ts';
import { expectedCosts } from './lookahead.ts';
import { aCase, aShot } from './testCases.ts';

const times = (timesS: number[], change: Parameters<typeof aShot>[0] = {}) =>
  timesS.map((timeS) => aShot({ timeS, ...change }));
const costs = (input: AdviceCase) => {
  const { fit } = advise(input);
  const from = input.shots.at(-1)?.setting ?? 30;
  const [repeat, ...moves] = expectedCosts(
    fit,
    input,
    from,
    [-3, -2, -1, 1, 2, 3].map((marks) => from + marks),
  );
  return { repeat: repeat?.cost ?? NaN, move: Math.min(...moves.map(({ cost }) => cost)) };
};

describe('value of information', () => {
  it('prefers a repeat while a move would be a guess, and a move once it is not', () => {
    // At the window's edge, with marks worth 5 s: one shot there could be noise. Three outside of it are not.
    const coarse = { dial: { stepMarks: 1, finer: 'down', range: null }, secondsPerMark: 5 } as const;
    const once = aCase({ ...coarse, since: null, shots: times([25.4]) });
    const thrice = aCase({ ...coarse, since: null, shots: times([23.6, 23.4, 23.5]) });
    expect(costs(once).repeat).toBeLessThan(costs(once).move);
    expect(costs(thrice).move).toBeLessThan(costs(thrice).repeat);
    expect(advise(once).action).toBe('repeat');
    expect(advise(thrice).action).toBe('move');
  });

  it('finds a move dearer where more grounds hang in the chute', () => {
    const costOf = (retentionG: number): number => costs(aCase({ retentionG, shots: times([21]) })).move;
    expect(costOf(9)).toBeGreaterThan(costOf(1));
  });

  it('never repeats for ever on a collar that it believes too coarse', () => {
    // A mark is believed to be worth 13 s; five shots at 22 s leave no hope here, so it tries the next mark.
    const input = aCase({ secondsPerMark: 13, shots: times([22, 22.3, 21.8, 22.1, 21.9]) });
    expect(advise(input)).toMatchObject({ action: 'move', direction: 'finer', marks: 1 });
  });

  it('weighs the first shot again when all that follow tell otherwise', () => {
    // The first ran far too fast through a channel that nobody saw; two later ones at other marks agree with each other.
    const shots = [aShot({ timeS: 19 }), ...times([34.6, 34.1, 34.4], { setting: 29, purgedG: 20 })];
    const { fit } = advise(aCase({ since: null, shots }));
    expect(fit.heard[0]?.weight).toBeLessThan(0.6);
    expect(fit.heard[2]?.weight).toBeGreaterThan(0.9);
  });
});

describe('time that passes', () => {
  it('adds doubt to what a shot showed, and leaves the shot its weight', () => {
    const at = (nowMs: number) => advise(aCase({ nowMs, shots: [aShot({ timeS: 21, atMs: 0 })] })).fit;
    const [fresh, later] = [at(0), at(97 * 60_000)];
    expect(later.heard[0]?.weight).toBeCloseTo(fresh.heard[0]?.weight ?? 0, 2);
    expect(later.line.level).toBeCloseTo(fresh.line.level, 2);
    expect(later.line.levelVariance).toBeGreaterThan(fresh.line.levelVariance + 0.0015);
  });
});

describe('trims between two marks', () => {
  const coarse = { dial: { stepMarks: 1, finer: 'down', range: null }, secondsPerMark: 5 } as const;
  const between = times([25.6, 25.5, 25.8]);

  it('offers more coffee on the fast side and less on the slow one, without a purge', () => {
    const fast = advise(aCase({ ...coarse, shots: between }));
    expect(fast).toMatchObject({ setting: 30, purgeG: 0, action: 'repeat' });
    expect(fast.doseG).toBeGreaterThan(18.1);
    expect(fast.predicted.inWindow).toBeGreaterThan(fast.here.inWindow);
    expect(fast.reasons.map(({ code }) => code)).toContain('trim');
    expect(advise(aCase({ ...coarse, shots: times([29.4, 29.6, 29.3]) })).doseG).toBeLessThan(17.9);
  });

  it('leaves the dose alone where the collar is fine enough, or where the house does not trim', () => {
    const fine = { dial: { stepMarks: 0.1, finer: 'down', range: null }, secondsPerMark: 5 } as const;
    expect(advise(aCase({ ...fine, shots: between })).doseG).toBeNull();
    expect(advise(aCase({ ...coarse, shots: between, house: { ...usualPolicy, trim: 'none' } })).doseG).toBeNull();
  });

  it('leaves the dose alone in the middle of the window', () => {
    expect(advise(aCase({ ...coarse, shots: times([27.3, 27.5, 27.4]) })).doseG).toBeNull();
  });
});

describe('when nothing on the dial can do it', () => {
  it('says so, and how close the best it has comes', () => {
    // A mark is worth 12 s: 30 runs 22 s, 29 runs 34 s, and both are known by now.
    const shots = [
      ...times(Array<number>(6).fill(22)),
      ...times(Array<number>(8).fill(32.4), { setting: 29, purgedG: 25 }),
    ];
    const advice = advise(aCase({ secondsPerMark: 12, shots, house: { ...usualPolicy, trim: 'none' } }));
    expect(advice).toMatchObject({ beyondDial: true, action: 'repeat' });
    expect(advice.closeEnough).toBe(advice.predicted.inWindow);
    expect(advice.predicted.inWindow).toBeLessThan(0.5);
    expect(advice.reasons).toContainEqual(expect.objectContaining({ code: 'noMarkHolds', nearest: 29 }));
  });

  it('stops at the end of the collar', () => {
    const dial = { stepMarks: 1, finer: 'down', range: { min: 29, max: 40 } } as const;
    expect(advise(aCase({ dial, shots: times([15]) }))).toMatchObject({ action: 'move', setting: 29 });
    const atTheEnd = advise(
      aCase({ dial, shots: [...times([15]), ...times([16.2, 16], { setting: 29, purgedG: 25 })] }),
    );
    expect(atTheEnd).toMatchObject({ action: 'repeat', setting: 29, beyondDial: true, because: 'endOfDial' });
    expect(atTheEnd.closeEnough).toBeLessThan(0.5);
  });
});

describe("the house's rule for a lock", () => {
  const lockedAfter = (lockRule: AdviceCase['house']['lockRule'], timesS: number[]): boolean =>
    advise(aCase({ since: null, house: { ...usualPolicy, lockRule }, shots: times(timesS) })).action === 'lock';

  it('takes the first good shot', () => {
    expect(lockedAfter('firstGood', [29.8])).toBe(true);
    expect(lockedAfter('firstGood', [30.4])).toBe(false);
  });

  it('takes one repeat', () => {
    expect(lockedAfter('oneRepeat', [27])).toBe(false);
    expect(lockedAfter('oneRepeat', [27, 29])).toBe(true);
    expect(lockedAfter('oneRepeat', [27, 31])).toBe(false);
  });

  it('takes the mean of three, even when one of them was outside', () => {
    expect(lockedAfter('meanOfThree', [27, 28])).toBe(false);
    // It says how far it has come by the house's own count, not by a sureness that nobody asked for.
    const two = [27, 28].map((timeS) => aShot({ timeS }));
    const counting = advise(aCase({ house: { ...usualPolicy, lockRule: 'meanOfThree' }, shots: two }));
    expect(counting.reasons).toContainEqual({ code: 'countsOn', counted: 2, lockRule: 'meanOfThree' });
    expect(lockedAfter('meanOfThree', [26, 31, 28])).toBe(true);
  });

  it('does not let the mean talk away a shot that is far out, nor one outside by what was poured before the lock', () => {
    expect(lockedAfter('meanOfThree', [25.2, 25.4, 39])).toBe(false);
    const house = { ...usualPolicy, lockRule: 'meanOfThree' } as const;
    const held = { house, held: { setting: 30, timeS: 25.5 }, since: { newBag: false, newCoffee: false, hours: 1 } };
    const after = (timesS: number[]): string =>
      advise(aCase({ ...held, earlier: times([25.4, 25.6]), shots: times(timesS) })).action;
    expect(after([26.5])).toBe('lock');
    expect(after([33])).not.toBe('lock');
    expect(after([33, 26, 26.5])).toBe('lock');
  });

  it('has another good shot to pull where good shots are counted, and is not offered one that is close enough', () => {
    const house = { ...usualPolicy, lockRule: 'meanOfThree' } as const;
    const shots = [...times([27, 27.2]), ...times([25.4], { setting: 31 }), ...times([27.1, 27.3])];
    expect(advise(aCase({ since: null, house, shots }))).toMatchObject({ action: 'repeat', closeEnough: null });
  });

  it('never turns away from a mark whose last two shots ran in the middle, whatever others did', () => {
    const dial = { stepMarks: 0.1, finer: 'up', range: null } as const;
    const before = [...times([25.2]), ...times([20.4, 22], { setting: 30.1, purgedG: 25 })];
    const back = times([27.4, 27.1], { purgedG: 25 });
    for (const lockRule of ['sureness', 'meanOfThree'] as const) {
      const advice = advise(
        aCase({ since: null, dial, house: { ...usualPolicy, lockRule }, shots: [...before, ...back] }),
      );
      expect(advice.action).not.toBe('move');
    }
  });

  it('counts only shots since the collar last came there', () => {
    const house = { ...usualPolicy, lockRule: 'oneRepeat' } as const;
    const shots = [...times([27]), ...times([23], { setting: 31 }), ...times([27])];
    expect(advise(aCase({ since: null, house, shots })).action).not.toBe('lock');
  });
});

describe('what is remembered of a grinder', () => {
  it('carries what a mark is worth into the next day, and leaves the level in doubt', () => {
    // Yesterday a mark proved to be worth nearly twice what the house believed.
    const yesterday = advise(
      aCase({ shots: [...times([20, 20.2]), ...times([28.5, 28.3], { setting: 28, purgedG: 25 })] }),
    );
    const { bar, reference } = yesterday.fit;
    const today = aCase({
      since: { newBag: false, hours: 14 },
      remembered: { bar, reference, grinder: 'this' },
      shots: times([22], { setting: 28 }),
    });
    const forgetful = advise({ ...today, remembered: null });
    const knowing = advise(today);
    expect(knowing.fit.line.response).toBeGreaterThan(1.3 * forgetful.fit.line.response);
    expect(knowing.fit.line.responseVariance).toBeLessThan(0.7 * forgetful.fit.line.responseVariance);
    expect(knowing.marks).toBeLessThanOrEqual(forgetful.marks);
  });
});

describe('behind a dual-walled basket', () => {
  it('moves little, however far the shot was off', () => {
    const dial = { stepMarks: 1, finer: 'down', range: null } as const;
    const farOff = (mostSteps?: number) =>
      advise(aCase({ dial: mostSteps === undefined ? dial : { ...dial, mostSteps }, shots: times([12, 12.3]) }));
    expect(farOff().marks).toBeGreaterThan(4);
    expect(farOff(2)).toMatchObject({ action: 'move', marks: 2, direction: 'finer' });
  });
});
