import { describe, expect, it } from 'vitest';
import { factMaker } from '../facts/testFacts.ts';
import { bagShift } from './bagShift.ts';
import { standingFacts } from '../facts/index.ts';
import { emptyMemory, updateWithFacts } from './barMemory.ts';
import { benchState } from './benchState.ts';
import { advise } from './advise.ts';
import { usualPolicy } from './adviceCase.ts';

const start = '2031-05-04T06:00:00Z';
const grinder = {
  id: 'grinder',
  dial: { stepMarks: 1, finer: 'down' as const, range: { min: 1, max: 60 } },
  secondsPerMark: 2.5,
  retentionG: null,
  seedSetting: 30,
};
const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 };
const nowMs = Date.parse(start) + 90 * 60_000;

/** Doubt of the next shot, after a lock and a bag. */
function doubtAfter(bag: { otherCoffee?: boolean } | null): number {
  const make = factMaker(start);
  const facts = [make('shot', { timeS: 27.4 }, 0), make('shot', { timeS: 27.6 }, 2), make('lock', {}, 4)];
  if (bag) facts.push(make('newBag', bag, 60));
  const standing = standingFacts(facts);
  const memory = updateWithFacts(emptyMemory, standing, {
    grinders: new Map([[grinder.id, grinder]]),
    recipeOf: () => recipe,
  });
  return advise(benchState(standing, grinder, recipe, usualPolicy, nowMs, memory).adviceCase).predicted.sd;
}

describe('what went into the hopper', () => {
  it('adds doubt: some for a new bag, as good as all for another coffee', () => {
    const [same, bag, coffee] = [doubtAfter(null), doubtAfter({}), doubtAfter({ otherCoffee: true })];
    expect(bag).toBeGreaterThan(same + 0.02);
    expect(coffee).toBeGreaterThan(0.3);
    expect(bag).toBeLessThan(0.15);
  });
});

describe('what another bag is expected to do', () => {
  it('makes an older one faster, with the doubt of a new bed', () => {
    // A day is 1 % of the time: 27.5 s, five days older: 1.375 s faster; doubt 0.08, and 0.01 a day.
    expect(bagShift(27.5, 5).shiftS).toBeCloseTo(-1.375, 6);
    expect(bagShift(27.5, 5).sdS).toBeCloseTo(27.5 * Math.hypot(0.08, 0.05), 6);
    expect(bagShift(27.5, null)).toEqual({ shiftS: 0, sdS: 27.5 * 0.08 });
  });
});
