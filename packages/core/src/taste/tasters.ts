import { tasteAxes, type TasteAxis, type TasteSheet } from './tasteSheet.ts';

/** How one taster differs from the others on an axis, points. */
export interface TasterBias {
  tasterId: string;
  axis: TasteAxis;
  /** By how much they say more (positive) than the others would of the same cup; shrunk to zero the fewer cups there are. */
  bias: number;
  /** How far a single word of theirs lies from what the cup and the bias say (one sd); null under three cups. */
  scatter: number | null;
  /** Cups that somebody else tasted too. */
  cups: number;
}

/** Variance of a single word over the variance of tasters' biases: as many cups as this count as much as knowing nothing. */
const SHRINK_CUPS = 2;
const ROUNDS = 30;
const LEAST_CUPS = 3;

/**
 * Taster effects of a crossed design, cup by taster, on each axis: score = cup + bias + noise. Best linear unbiased
 * prediction with the cups as fixed effects, found by turns (backfitting; Robinson 1991). Only cups that two or more
 * tasted say anything; biases of the tasters sum to about zero.
 */
export function tasterBiases(sheets: readonly TasteSheet[]): TasterBias[] {
  return tasteAxes.flatMap((axis) => biasesOn(axis, sheets));
}

function biasesOn(axis: TasteAxis, sheets: readonly TasteSheet[]): TasterBias[] {
  const cups = new Map<string, Map<string, number>>();
  for (const { shotId, tasterId, tasted } of sheets) {
    const score = tasted[axis];
    if (shotId === null || score === null) continue;
    const cup = cups.get(shotId) ?? new Map<string, number>();
    cups.set(shotId, cup.set(tasterId, score));
  }
  const shared = [...cups.values()].filter((cup) => cup.size > 1);
  const tasters = [...new Set(shared.flatMap((cup) => [...cup.keys()]))];
  const bias = new Map(tasters.map((tasterId) => [tasterId, 0]));
  const cupMean = (cup: ReadonlyMap<string, number>): number =>
    [...cup].reduce((sum, [tasterId, score]) => sum + score - (bias.get(tasterId) ?? 0), 0) / cup.size;
  const leftOver = (tasterId: string): number[] =>
    shared.flatMap((cup) => {
      const score = cup.get(tasterId);
      return score === undefined ? [] : [score - cupMean(cup)];
    });
  for (let round = 0; round < ROUNDS; round += 1) {
    for (const tasterId of tasters) {
      const off = leftOver(tasterId);
      bias.set(tasterId, off.reduce((sum, one) => sum + one, 0) / (off.length + SHRINK_CUPS));
    }
  }
  return tasters.map((tasterId) => {
    const own = bias.get(tasterId) ?? 0;
    const off = leftOver(tasterId).map((one) => one - own);
    const scatter =
      off.length < LEAST_CUPS ? null : Math.sqrt(off.reduce((sum, one) => sum + one ** 2, 0) / (off.length - 1));
    return { tasterId, axis, bias: own, scatter, cups: off.length };
  });
}

/** A look-up of what is taken off a taster's word. */
export function biasOf(biases: readonly TasterBias[]): (tasterId: string, axis: TasteAxis) => number {
  const known = new Map(biases.map(({ tasterId, axis, bias }) => [`${tasterId} ${axis}`, bias]));
  return (tasterId, axis) => known.get(`${tasterId} ${axis}`) ?? 0;
}
