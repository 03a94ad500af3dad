import type { TasteLever } from './ways.ts';

/** How a shot tasted, 0 to 10: sour to bitter, weak to strong; null where nobody said. */
export interface Tasted {
  sourBitter: number | null;
  weakStrong: number | null;
}

/** What the recipe aims at on the same axes. */
export interface TasteAim {
  sourBitter: { low: number; high: number };
  weakStrong: { low: number; high: number };
}

/** The one thing to change; `by` in the lever's own unit: share of the yield, marks finer, grams of dose, degC. */
export interface TasteChange {
  lever: TasteLever;
  by: number;
  /** True when the house's first lever would mend one fault and worsen the other, so that another takes its place. */
  instead: boolean;
}

/** One step of each lever, small enough to taste the difference and to go back on. */
const STEP: Record<TasteLever, number> = { yield: 0.06, grind: 1, dose: 0.3, temperature: 1 };

/**
 * What one step up of a lever does: +1 more bitter or stronger, -1 more sour or weaker, 0 hardly anything. A longer yield
 * draws more out and thins it; finer draws more out and strengthens; more dose strengthens and draws out less; hotter
 * draws more out.
 */
const EFFECT: Record<TasteLever, { bitter: number; strong: number }> = {
  yield: { bitter: 1, strong: -1 },
  grind: { bitter: 1, strong: 1 },
  dose: { bitter: -1, strong: 1 },
  temperature: { bitter: 1, strong: 0 },
};

/** How far outside its stretch a taste lies: below zero too low, zero inside, and where nobody said. */
const missOf = (value: number | null, { low, high }: { low: number; high: number }): number =>
  value === null ? 0 : value < low ? value - low : Math.max(0, value - high);

/**
 * The one change that the house's school asks for when the numbers fit and the taste does not; null when it tastes as
 * it should. The house's lever goes first, unless it would mend one fault and worsen the other.
 */
export function tasteChange(tasted: Tasted, aim: TasteAim, first: TasteLever): TasteChange | null {
  const bitter = -Math.sign(missOf(tasted.sourBitter, aim.sourBitter));
  const strong = -Math.sign(missOf(tasted.weakStrong, aim.weakStrong));
  if (bitter === 0 && strong === 0) return null;
  const order: TasteLever[] = [first, ...others(first)];
  for (const lever of order) {
    const way = wayOf(lever, bitter, strong);
    if (way !== 0) return { lever, by: way * STEP[lever], instead: lever !== first };
  }
  return null;
}

/** After the house's own: what needs no purge first. */
const others = (first: TasteLever): TasteLever[] =>
  (['yield', 'grind', 'dose', 'temperature'] as const).filter((lever) => lever !== first);

/** Up, down, or not at all: a lever is used when it helps with what is wrong and harms nothing else that is. */
function wayOf(lever: TasteLever, bitter: number, strong: number): number {
  const effect = EFFECT[lever];
  for (const way of [1, -1]) {
    const helps = [effect.bitter * way * bitter, effect.strong * way * strong];
    if (helps.some((help) => help > 0) && helps.every((help) => help >= 0)) return way;
  }
  return 0;
}
