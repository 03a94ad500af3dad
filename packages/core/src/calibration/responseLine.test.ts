import { describe, expect, it } from 'vitest';
import { updateWithShot, newBar, withGrinder, withGroup, type BarModel } from './barModel.ts';
import { covarianceAt, effectOfShot, lineOf, meanAt, sdAt } from './responseLine.ts';

const prior = { level: Math.log(26), levelSd: 0.12, response: 0.09, responseSd: 0.027 };
const bar = (): BarModel => withGroup(withGrinder(newBar(), 'house', prior), '1');
const lineIn = (model: BarModel) => lineOf(model, { grinder: 'house', coffee: null }, '1', 0.02);
const shotAt = (x: number, lnTimeS: number) => ({
  grinder: 'house',
  group: '1',
  x,
  lnTimeS,
  lnDose: 0,
  addedVariance: 0,
  choked: false,
});

describe('the line over the dial', () => {
  it('adds the group to the level, with its doubt', () => {
    const line = lineIn(bar());
    // By hand: 0.12^2 + 0.03^2 for the level, 0.027^2 a mark squared for the response.
    expect(line.levelVariance).toBeCloseTo(0.0153, 10);
    expect(sdAt(line, 3)).toBeCloseTo(Math.sqrt(0.0153 + 9 * 0.000729), 10);
    expect(meanAt(line, 2)).toBeCloseTo(Math.log(26) + 0.18, 10);
    expect(covarianceAt(line, 0, 5)).toBeCloseTo(0.0153, 10);
  });

  it('never lets a finer mark be faster', () => {
    const turned = [0, 4].reduce(
      (model, x) => updateWithShot(model, shotAt(x, Math.log(26) - 0.3 * x), 1).bar,
      withGroup(withGrinder(newBar(), 'house', { ...prior, responseSd: 0.3 }), '1'),
    );
    expect(lineOf(turned, { grinder: 'house', coffee: null }, null, 0.02).response).toBe(0.02);
  });

  it('foresees what a shot will do exactly as the filter does it', () => {
    for (const x of [-3, 0, 2, 6]) {
      for (const z of [-1, 0, 1.5]) {
        const line = lineIn(bar());
        const { surpriseSd, after } = effectOfShot(line, x);
        const heard = updateWithShot(bar(), shotAt(x, meanAt(line, x) + z * surpriseSd), 1).bar;
        const [foreseen, filtered] = [after(z), lineIn(heard)];
        for (const mark of [-4, 0, 5]) {
          expect(meanAt(foreseen, mark)).toBeCloseTo(meanAt(filtered, mark), 10);
          expect(sdAt(foreseen, mark)).toBeCloseTo(sdAt(filtered, mark), 10);
        }
      }
    }
  });
});
