/** One taster's sheet, axes 0 to 10; null where nobody touched it. */
export interface TasteSheet {
  tasterId: string;
  sourBitter: number | null;
  weakStrong: number | null;
  body: number | null;
  sweetness: number | null;
}

export interface TasteTable {
  mean: Omit<TasteSheet, 'tasterId'>;
  tasters: number;
  /** How far the tasters lie apart on the two axes, the widest; 0 of one. */
  apart: number;
}

type Axis = 'sourBitter' | 'weakStrong' | 'body' | 'sweetness';

/** What several tasters say together: the newest sheet of each, in the mean. Null of none. */
export function tasteTable(sheets: readonly TasteSheet[]): TasteTable | null {
  const newest = [...new Map(sheets.map((sheet) => [sheet.tasterId, sheet])).values()];
  if (newest.length === 0) return null;
  const said = (axis: Axis): number[] => newest.map((sheet) => sheet[axis]).filter((value) => value !== null);
  const meanOf = (axis: Axis): number | null => {
    const values = said(axis);
    return values.length === 0 ? null : values.reduce((sum, value) => sum + value, 0) / values.length;
  };
  const spread = (axis: Axis): number => {
    const values = said(axis);
    return values.length === 0 ? 0 : Math.max(...values) - Math.min(...values);
  };
  return {
    mean: {
      sourBitter: meanOf('sourBitter'),
      weakStrong: meanOf('weakStrong'),
      body: meanOf('body'),
      sweetness: meanOf('sweetness'),
    },
    tasters: newest.length,
    apart: Math.max(spread('sourBitter'), spread('weakStrong')),
  };
}

/** Share of the coffee that went into the cup, percent: strength (% TDS) x yield / dose (handbook, section 3). */
export function extractionPct(tdsPct: number, yieldG: number, doseG: number): number {
  if (!(doseG > 0)) throw new RangeError(`extractionPct: the dose must be above 0, got ${doseG}`);
  return (tdsPct * yieldG) / doseG;
}
