import { describe, expect, it } from 'vitest';
import { leverSteps } from './leverEffects.ts';
import { canChange, type Reach } from './reach.ts';
import { judgeTaste } from './tasteChange.ts';
import { untasted } from './tasteSheet.ts';

const reach: Reach = {
  aim: { doseG: 18, tempC: 93 },
  basketG: { min: 16, max: 18.2 },
  mostDoseG: null,
  setsTemp: true,
  dial: { stepMarks: 1, finer: 'down', range: { min: 0, max: 40 } },
  setting: 20,
};
const aim = { sourBitter: { low: 4, high: 6 }, weakStrong: { low: 4, high: 6 } };

describe('what a bar can be made to do', () => {
  it.each([
    ['another yield', reach, 'yield', 0.06, true],
    ['a hotter group', reach, 'temperature', 1, true],
    ['a machine that sets no temperature', { ...reach, setsTemp: false }, 'temperature', 1, false],
    ['a recipe that names none', { ...reach, aim: { doseG: 18, tempC: null } }, 'temperature', 1, false],
    ['one mark finer', reach, 'grind', 1, true],
    ['the finest mark', { ...reach, setting: 0 }, 'grind', 1, false],
    ['coarser from there', { ...reach, setting: 0 }, 'grind', -1, true],
    ['a dial without ends', { ...reach, setting: 0, dial: { ...reach.dial, range: null } }, 'grind', 1, true],
    ['a dose that the basket takes', reach, 'dose', 0.2, true],
    ['a dose that touches the screen', reach, 'dose', 0.3, false],
    ['back into the basket', { ...reach, aim: { doseG: 19, tempC: null } }, 'dose', -0.3, true],
    ['farther out of it', { ...reach, aim: { doseG: 19, tempC: null } }, 'dose', 0.3, false],
    ['a basket that nobody described', { ...reach, basketG: null }, 'dose', 0.3, true],
    ['never more than the recipe', { ...reach, basketG: null, mostDoseG: 18 }, 'dose', 0.3, false],
    ['less than it', { ...reach, basketG: null, mostDoseG: 18 }, 'dose', -0.3, true],
  ] as const)('%s', (_, of, lever, by, can) => {
    expect(canChange(of)({ lever, by })).toBe(can);
  });

  it('is all that is advised: the house’s first lever gives way, and what is left stands beside', () => {
    const sour = { ...untasted, acidity: 8 };
    const steps = leverSteps(1, 0.09);
    const hard = canChange({ ...reach, setsTemp: false, setting: 0 });
    const verdict = judgeTaste(sour, aim, 'grind', undefined, { steps, can: hard });
    expect(verdict).toMatchObject({ change: { lever: 'yield', by: 0.06 }, instead: true });
    expect(verdict.alternatives.map(({ lever }) => lever)).toEqual(['dose']);
    // A little less coffee and a little coarser, at the coarsest mark.
    const both = { ...untasted, acidity: 8, bitterness: 8 };
    expect(judgeTaste(both, aim, 'yield').atOnce).not.toBeNull();
    const coarsest = canChange({ ...reach, setting: 40 });
    expect(judgeTaste(both, aim, 'yield', undefined, { steps, can: coarsest }).atOnce).toBeNull();
  });

  it.each([
    // A mark of 2.5 s in 27.5 is a step; a tenth of it is nothing that anybody tastes, and five seconds are one all the same.
    [1, 0.09, 1],
    [0.1, 0.09, 1],
    [0.1, 0.18, 0.5],
    [0.5, 0.03, 3],
    [1, 0.18, 1],
    [5, 0.02, 5],
  ])('a collar that turns by %f of a mark, at %f of the time a mark, is turned by %f', (stepMarks, share, by) => {
    const steps = leverSteps(stepMarks, share);
    expect(steps.grind).toBeCloseTo(by);
    const sour = { ...untasted, acidity: 8 };
    expect(judgeTaste(sour, aim, 'grind', undefined, { steps, can: () => true }).change?.by).toBeCloseTo(by);
  });
});
