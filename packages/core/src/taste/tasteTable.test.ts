import { describe, expect, it } from 'vitest';
import { untasted } from './tasteSheet.ts';
import { extractionPct, tasteTable } from './tasteTable.ts';

const sheet = (tasterId: string, acidity: number) => ({ tasterId, tasted: { ...untasted, acidity, sweetness: 6 } });

describe('several tasters', () => {
  it('say nothing while nobody tasted', () => {
    expect(tasteTable([])).toBeNull();
  });
  it('are heard in the mean, each by the newest sheet, and an axis that nobody touched says nothing', () => {
    const table = tasteTable([sheet('ines', 2), sheet('noor', 6), sheet('ines', 4)]);
    expect(table).toMatchObject({ tasters: 2, apart: 2, mean: { acidity: 5, sweetness: 6, bitterness: null } });
  });
  it('lose what each is known to say too much', () => {
    const table = tasteTable([sheet('ines', 7), sheet('noor', 5)], (tasterId, axis) =>
      tasterId === 'ines' && axis === 'acidity' ? 1 : 0,
    );
    // By hand: (7 - 1 + 5) / 2.
    expect(table?.mean.acidity).toBe(5.5);
  });
});

describe('extraction', () => {
  it('is strength times yield over dose', () => {
    expect(extractionPct(9.5, 36, 18)).toBeCloseTo(19, 9);
    expect(() => extractionPct(9.5, 36, 0)).toThrow(/dose must be above 0/);
  });
});
