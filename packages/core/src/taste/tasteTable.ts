import { tasteAxes, type TasteAxis, type TasteSheet, type Tasted } from './tasteSheet.ts';

/** What several tasters say together of one cup, or of the cups of one setting. */
export interface TasteTable {
  mean: Tasted;
  tasters: number;
  /** How far the tasters lie apart on acidity, bitterness or strength, the widest; 0 of one. */
  apart: number;
}

const APART_ON: readonly TasteAxis[] = ['acidity', 'bitterness', 'strength'];
const clamp = (score: number): number => Math.min(10, Math.max(0, score));

/**
 * The newest sheet of each, in the mean. Null of none.
 * @param biasOf by how much a taster says more than the others on an axis: taken off before the mean
 */
export function tasteTable(
  sheets: readonly Pick<TasteSheet, 'tasterId' | 'tasted'>[],
  biasOf: (tasterId: string, axis: TasteAxis) => number = () => 0,
): TasteTable | null {
  const newest = [...new Map(sheets.map((sheet) => [sheet.tasterId, sheet])).values()];
  if (newest.length === 0) return null;
  const said = (axis: TasteAxis): number[] =>
    newest.flatMap(({ tasterId, tasted }) => {
      const score = tasted[axis];
      return score === null ? [] : [clamp(score - biasOf(tasterId, axis))];
    });
  const meanOf = (axis: TasteAxis): number | null => {
    const scores = said(axis);
    return scores.length === 0 ? null : scores.reduce((sum, score) => sum + score, 0) / scores.length;
  };
  const spread = (axis: TasteAxis): number => {
    const scores = said(axis);
    return scores.length === 0 ? 0 : Math.max(...scores) - Math.min(...scores);
  };
  return {
    mean: Object.fromEntries(tasteAxes.map((axis) => [axis, meanOf(axis)])) as Tasted,
    tasters: newest.length,
    apart: Math.max(...APART_ON.map(spread)),
  };
}

/** Share of the coffee that went into the cup, percent: strength (% TDS) x yield / dose (handbook, section 3). */
export function extractionPct(tdsPct: number, yieldG: number, doseG: number): number {
  if (!(doseG > 0)) throw new RangeError(`extractionPct: the dose must be above 0, got ${doseG}`);
  return (tdsPct * yieldG) / doseG;
}
