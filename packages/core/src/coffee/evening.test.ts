import { describe, expect, it } from 'vitest';
import { MS_PER_HOUR } from '../numbers/index.ts';
import {
  coffeeAhead,
  firstBagOf,
  hoppersLeft,
  leftIn,
  portionsOf,
  takenOut,
  throughputByDay,
  type BagAhead,
} from './index.ts';

/** Two days of ten hours. */
const days = [
  { day: 'mon', fromMs: 0, toMs: 10 * MS_PER_HOUR },
  { day: 'tue', fromMs: 24 * MS_PER_HOUR, toMs: 34 * MS_PER_HOUR },
];
const bag = (atH: number, weightG: number) => ({ grinderId: 'house', atMs: atH * MS_PER_HOUR, weightG });
const tub = (atH: number, leftG: number) => ({ grinderId: 'house', atMs: atH * MS_PER_HOUR, leftG });

describe('stock after weighing tubs', () => {
  it('takes the tub for what is left, and the difference for what went through', () => {
    // 1,000 g in on Monday morning, 400 g weighed at closing: 600 g in 10 h.
    expect(throughputByDay([bag(0, 1_000)], days, [tub(10, 400)])).toContainEqual({
      day: 'mon',
      grinderId: 'house',
      grams: 600,
    });
    // Tuesday at the same 60 g an hour, until the tub is empty.
    expect(throughputByDay([bag(0, 1_000)], days, [tub(10, 400)]).find(({ day }) => day === 'tue')?.grams).toBe(400);
    const [left] = hoppersLeft([bag(0, 1_000)], days.slice(0, 1), [tub(10, 400)]);
    expect(left).toEqual({ grinderId: 'house', leftG: 400, weighedAtMs: 10 * MS_PER_HOUR, paceGPerHour: 60 });
  });

  it('goes on at the pace since the tub was weighed', () => {
    const until = [days[0]!, { ...days[1]!, toMs: 27 * MS_PER_HOUR }];
    expect(hoppersLeft([bag(0, 1_000)], until, [tub(10, 400)])[0]?.leftG).toBe(400 - 3 * 60);
  });

  it('reckons from the bag where nobody weighed, at the pace of the one before', () => {
    const [left] = hoppersLeft([bag(0, 500), bag(5, 1_000)], days.slice(0, 1));
    expect(left).toEqual({ grinderId: 'house', leftG: 500, weighedAtMs: null, paceGPerHour: 100 });
  });

  it('believes a tub that holds more than was thought, and says nothing of what went through before it', () => {
    const [left] = hoppersLeft([bag(0, 300)], days.slice(0, 1), [tub(10, 800)]);
    expect(left).toMatchObject({ leftG: 800, paceGPerHour: 0 });
  });
});

describe('the day ahead', () => {
  const ahead = (id: string, weightG: number, state: BagAhead['state'], roastedAtMs = 0): BagAhead => ({
    id,
    weightG,
    state,
    roastedAtMs,
  });
  const hopper = { grinderId: 'house', coffeeId: 'blend', leftG: 400 };

  it('takes out of the freezer what tubs and shelf do not cover, the oldest roast first, and no more', () => {
    const bags = [ahead('new', 500, 'frozen', 9), ahead('old', 500, 'frozen', 2), ahead('shelf', 600, 'ready')];
    // 2,000 g a day, always: 1,000 g are at hand, two bags of 500 g make it up.
    expect(coffeeAhead('blend', [hopper], bags, [2_000, 2_000, 2_000])).toMatchObject({
      needG: 2_000,
      atHandG: 1_000,
      thaw: [{ id: 'old' }, { id: 'new' }],
      missingG: 0,
    });
    expect(coffeeAhead('blend', [hopper], bags, [1_400, 1_400])).toMatchObject({ thaw: [{ id: 'old' }] });
    expect(coffeeAhead('blend', [hopper], bags, [1_000, 1_000]).thaw).toEqual([]);
    expect(coffeeAhead('blend', [hopper], bags, [3_000, 3_000]).missingG).toBe(1_000);
  });

  it('is ready for nine days of ten, not for the mean one', () => {
    // Mean 1,000 g, sd 200 g (n - 1): 1,000 + 1.2816 × 200.
    expect(coffeeAhead('blend', [], [], [800, 1_000, 1_200]).needG).toBeCloseTo(1_256.3, 0);
    expect(coffeeAhead('blend', [], [], []).needG).toBe(0);
  });

  it('does not count what still rests', () => {
    expect(coffeeAhead('blend', [hopper], [ahead('young', 900, 'notYet')], [1_000]).missingG).toBe(600);
  });

  it('begins with the tub, and with the next bag where little is left in it', () => {
    const bags = [ahead('frozen', 500, 'frozen'), ahead('shelf', 600, 'ready')];
    expect(firstBagOf(hopper, bags, 2_000, new Set())).toBeNull();
    expect(firstBagOf({ ...hopper, leftG: 150 }, bags, 2_000, new Set())?.id).toBe('shelf');
    expect(firstBagOf({ ...hopper, leftG: 0 }, bags, 2_000, new Set(['frozen']))?.id).toBe('frozen');
  });

  it('ends the stay in the freezer that lasts, and takes that back; an older one stays as it was', () => {
    const old = { on: '2031-04-01', until: '2031-04-10' };
    const stays = [old, { on: '2031-05-01', until: null }];
    expect(takenOut(stays, '2031-05-04')).toEqual([old, { on: '2031-05-01', until: '2031-05-04' }]);
    // A tablet whose clock is behind cannot take it out before it went in.
    expect(takenOut(stays, '2031-04-30')).toEqual([old, { on: '2031-05-01', until: '2031-05-01' }]);
    expect(takenOut([old], '2031-05-04')).toEqual([old]);
    expect(leftIn(takenOut(stays, '2031-05-04'), '2031-05-04')).toEqual(stays);
    expect(leftIn([old], '2031-05-04')).toEqual([old]);
  });

  it('splits a bag into whole grams, and into nothing smaller than a bag', () => {
    expect(portionsOf(1_000, 3)).toEqual([333, 333, 334]);
    expect(portionsOf(180, 4)).toBeNull();
    expect(portionsOf(1_000, 1)).toBeNull();
  });
});
