import { describe, expect, it } from 'vitest';
import { untasted } from './tasteSheet.ts';
import { biasOf, tasterBiases } from './tasters.ts';

const sheet = (tasterId: string, shotId: string | null, acidity: number) => ({
  tasterId,
  shotId,
  atMs: 0,
  than: null,
  tasted: { ...untasted, acidity },
});
const on = (sheets: Parameters<typeof tasterBiases>[0], tasterId: string) =>
  tasterBiases(sheets).find((one) => one.tasterId === tasterId && one.axis === 'acidity');

describe('how tasters differ', () => {
  it('two points apart on four cups: half of it each, shrunk', () => {
    const sheets = ['a', 'b', 'c', 'd'].flatMap((cup) => [sheet('ines', cup, 6), sheet('noor', cup, 4)]);
    // By hand: with biases +b and -b each cup's mean is 5, so what is left over is 1; b = 4 * 1 / (4 + 2).
    expect(on(sheets, 'ines')).toMatchObject({ cups: 4 });
    expect(on(sheets, 'ines')?.bias).toBeCloseTo(4 / 6, 6);
    expect(on(sheets, 'noor')?.bias).toBeCloseTo(-4 / 6, 6);
    expect(biasOf(tasterBiases(sheets))('ines', 'acidity')).toBeCloseTo(4 / 6, 6);
  });

  it('one cup says less of it than four, and a cup that one tasted alone, or nobody named, nothing', () => {
    const one = [sheet('ines', 'a', 6), sheet('noor', 'a', 4)];
    // By hand: 1 / (1 + 2).
    expect(on(one, 'ines')?.bias).toBeCloseTo(1 / 3, 6);
    expect(tasterBiases([sheet('ines', 'a', 6), sheet('noor', 'b', 4), sheet('noor', null, 4)])).toEqual([]);
  });

  it('a cup that is sour is not a taster’s bias', () => {
    const sheets = ['a', 'b', 'c'].flatMap((cup, i) => [sheet('ines', cup, 3 + 2 * i), sheet('noor', cup, 3 + 2 * i)]);
    expect(on(sheets, 'ines')).toMatchObject({ bias: 0, scatter: 0, cups: 3 });
  });
});
