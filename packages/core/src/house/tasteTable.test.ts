import { describe, expect, it } from 'vitest';
import { extractionPct, tasteTable } from './tasteTable.ts';

const sheet = (tasterId: string, sourBitter: number, weakStrong = 5) => ({
  tasterId,
  sourBitter,
  weakStrong,
  body: 5,
  sweetness: 6,
});

describe('several tasters', () => {
  it('say nothing while nobody tasted', () => {
    expect(tasteTable([])).toBeNull();
  });
  it('are heard in the mean, each by the newest sheet', () => {
    const table = tasteTable([sheet('ines', 2), sheet('noor', 6), sheet('ines', 4)]);
    expect(table).toMatchObject({ tasters: 2, apart: 2, mean: { sourBitter: 5, weakStrong: 5, sweetness: 6 } });
  });
});

describe('extraction', () => {
  it('is strength times yield over dose', () => {
    expect(extractionPct(9.5, 36, 18)).toBeCloseTo(19, 9);
    expect(() => extractionPct(9.5, 36, 0)).toThrow(/dose must be above 0/);
  });
});
