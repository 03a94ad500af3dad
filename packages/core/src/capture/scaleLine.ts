/** Units that scales write. */
export const massUnits = ['g', 'kg', 'oz', 'lb'] as const;
export type MassUnit = (typeof massUnits)[number];

/** Grams of one of them (international avoirdupois: 1 lb = 453.592 37 g exactly). */
export const gPerUnit: Record<MassUnit, number> = { g: 1, kg: 1_000, oz: 453.59237 / 16, lb: 453.59237 };

/** What a line of a scale says by itself. */
export interface ScaleLine {
  value: number;
  /** Null where the line names none: what it means is learned from the person who sees the scale. */
  unit: MassUnit | null;
  /** Whether the scale calls it steady; null where it says nothing of that. */
  stable: boolean | null;
}

const NUMBER = /(?<!\d|\d[.,])([+-]?)\s*(\d+(?:[.,]\d+)?)\s*(kg|g|oz|lbs?)?(?![\d.,])/gi;
const OVER = /\b(?:OL|OVER|ERR(?:OR)?|UL|UNDER)\b|-{3,}/i;
const MOVES = /\?|\b(?:US|SD|UNST\w*|DYN\w*|D|M)\b/i;
const RESTS = /\b(?:ST|S|STABLE?)\b|\*/i;

/**
 * Reads a line of the usual continuous formats: sign, number, unit, and letters or signs for steady and not. Of several
 * numbers the one with a unit counts, then the last with a decimal; what is no weight, and an overload, is null.
 */
export function readScaleLine(line: string): ScaleLine | null {
  if (OVER.test(line)) return null;
  const numbers = [...line.matchAll(NUMBER)];
  const found =
    numbers.find(([, , , unit]) => unit !== undefined) ??
    (numbers.length === 1 ? numbers[0] : numbers.findLast(([, , digits = '']) => /[.,]/.test(digits)));
  const digits = found?.[2];
  if (found === undefined || digits === undefined) return null;
  const value = Number(digits.replace(',', '.')) * (found[1] === '-' ? -1 : 1);
  const unit = massUnits.find((one) => one === found[3]?.toLowerCase().replace('lbs', 'lb')) ?? null;
  // Letters of the number itself say nothing of rest: they are taken out first.
  const rest = line.slice(0, found.index) + ' ' + line.slice(found.index + found[0].length);
  const stable = MOVES.test(rest) ? false : RESTS.test(rest) ? true : null;
  return { value: value === 0 ? 0 : value, unit, stable };
}

/** Grams of a line; null where it is no weight. `means` is the unit of lines that name none. */
export function gramsOfLine(line: string, means: MassUnit): { g: number; stable: boolean | null } | null {
  const read = readScaleLine(line);
  return read && { g: read.value * gPerUnit[read.unit ?? means], stable: read.stable };
}

/** Whether somebody must say what the lines of a scale mean: none of those that were read names a unit. */
export const asksForUnit = (lines: readonly string[]): boolean => {
  const read = lines.flatMap((line) => readScaleLine(line) ?? []);
  return read.length > 0 && read.every(({ unit }) => unit === null);
};
