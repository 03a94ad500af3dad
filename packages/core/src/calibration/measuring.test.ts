import { describe, expect, it } from 'vitest';
import { advise } from './advise.ts';
import { newBar, updateWithShot, withGrinder, type BarModel } from './barModel.ts';
import { varianceOfWays } from './measuring.ts';
import { packMemory, unpackMemory } from './packMemory.ts';
import { emptyMemory } from './barMemory.ts';
import { aCase, aShot, pseudoRandom } from './testCases.ts';
import { trimByHand, trimDoses } from './trim.ts';

const byHandAlone = { dose: 'levelled', yield: 'glass' } as const;

describe('what is measured without a scale', () => {
  it('says less: the same shots leave the engine less sure, with a wider band for the next', () => {
    const shots = [aShot({ timeS: 27 }), aShot({ timeS: 27.5 })];
    const scale = advise(aCase({ shots }));
    const glass = advise(aCase({ shots: shots.map((shot) => ({ ...shot, measured: byHandAlone })) }));
    expect(glass.predicted.inWindow).toBeLessThan(scale.predicted.inWindow);
    const width = ({ predicted }: typeof scale): number => predicted.highS - predicted.lowS;
    expect(width(glass)).toBeGreaterThan(1.2 * width(scale));
  });

  it('orders the ways as hands do: scale, timer, level, line, eye', () => {
    const ways = ['scale', 'timed', 'levelled', 'line', 'eye'] as const;
    const variances = ways.map((dose) => varianceOfWays({ dose }));
    expect(variances).toEqual(variances.toSorted((a, b) => a - b));
    expect(variances[0]).toBe(0);
  });

  it('judges a dose by its way, not by the tolerance that only a scale can keep', () => {
    const off = (doseG: number, dose: 'scale' | 'eye') =>
      advise(aCase({ shots: [aShot({ doseG, measured: { dose } })] })).judgement.kind;
    expect(off(18.8, 'scale')).toBe('doseOff');
    expect(off(18.8, 'eye')).not.toBe('doseOff');
    expect(off(21, 'eye')).toBe('doseOff');
  });

  it('bears no more than the recipe asks for where that is said, and as much less as ever', () => {
    const recipe = { ...aCase().recipe, doseNoMore: true };
    const judged = (doseG: number) => advise(aCase({ recipe, shots: [aShot({ doseG })] })).judgement.kind;
    expect(judged(18.1)).toBe('doseOff');
    expect(judged(17.8)).toBe('sound');
    expect(judged(17.5)).toBe('doseOff');
  });

  it('offers no tenths of a gram to a hand that levels, and says a touch instead', () => {
    const station = { ...aCase({ secondsPerMark: 4 }) };
    const levelled = { ...station, measured: byHandAlone };
    const { line } = advise(station).fit;
    expect(trimDoses(station, line)).not.toEqual([]);
    expect(trimDoses(levelled, line)).toEqual([]);
    expect(trimByHand(station, line, 25.5)).toBeNull();
    expect(trimByHand(levelled, line, 25.5)).toEqual({ by: 'dose', more: true });
    expect(trimByHand(levelled, line, 29.5)).toEqual({ by: 'dose', more: false });
  });

  it('learns how well a house measures, and keeps that with the memory', () => {
    const random = pseudoRandom(7);
    const level = { level: Math.log(27.4), levelSd: 0.05, response: 0.09, responseSd: 0.02 };
    const shotsOf = (sd: number): BarModel => {
      let bar = withGrinder(newBar(), 'house', level);
      for (let i = 0; i < 80; i += 1) {
        const noise = sd * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
        const shot = { grinder: 'house', group: null, x: 0, lnTimeS: Math.log(27.4) + noise, lnDose: 0 };
        ({ bar } = updateWithShot(bar, { ...shot, addedVariance: 0, choked: false, measured: byHandAlone }));
      }
      return bar;
    };
    const [steady, loose] = [shotsOf(0.05), shotsOf(0.13)];
    const usual = varianceOfWays(byHandAlone);
    expect(varianceOfWays(byHandAlone, steady.ways)).toBeLessThan(usual);
    expect(varianceOfWays(byHandAlone, loose.ways)).toBeGreaterThan(usual);
    const kept = unpackMemory(packMemory({ ...emptyMemory, base: loose }));
    expect(kept?.base.ways).toEqual(loose.ways);
  });
});
