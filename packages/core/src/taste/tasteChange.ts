import { tasteLevers, type TasteLever } from '../house/index.ts';
import {
  leverAxes,
  leverEffects,
  usualSteps,
  type LeverAxis,
  type LeverEffects,
  type LeverSteps,
} from './leverEffects.ts';
import type { Tasted } from './tasteSheet.ts';
import { tenth, type AimNumbers } from './todaysAim.ts';

interface Stretch {
  low: number;
  high: number;
}

/** What a recipe aims at, as its sheet has it: one stretch from sour to bitter, one from weak to strong. */
export interface TasteAim {
  sourBitter: Stretch;
  weakStrong: Stretch;
}

/** Where a recipe says nothing of taste. */
export const usualTasteAim: TasteAim = { sourBitter: { low: 4, high: 6 }, weakStrong: { low: 4, high: 7 } };

export const roasts = ['light', 'medium', 'dark'] as const;
export type Roast = (typeof roasts)[number];

/** A light roast is meant to be livelier, a dark one more bitter; decaf gives a thinner cup whatever is done to it. */
const ROAST_SHIFT: Record<Roast, number> = { light: -1, medium: 0, dark: 1 };
const DECAF_THINNER = 1;

/** What a coffee should taste of where its recipe says nothing. */
export function tasteAimOf({ roast, decaf }: { roast: Roast; decaf: boolean }): TasteAim {
  const { sourBitter, weakStrong } = usualTasteAim;
  const by = ROAST_SHIFT[roast];
  return {
    sourBitter: { low: sourBitter.low + Math.min(0, by), high: sourBitter.high + Math.max(0, by) },
    weakStrong: { low: weakStrong.low - (decaf ? DECAF_THINNER : 0), high: weakStrong.high },
  };
}

/** One thing to change; `by` in the lever's own unit: share of the yield, marks finer, grams of dose, degC. */
export interface TasteChange {
  lever: TasteLever;
  by: number;
}

/** Numbers that somebody wants instead of today's; the collar so many marks finer, coarser below 0. */
export interface OwnNumbers extends Pick<AimNumbers, 'yieldG' | 'doseG' | 'tempC'> {
  marksFiner: number;
}

/** What leads from today's aim to numbers of one's own: every lever that moves, in the order in which levers are named; empty: none does. */
export function changesTo({ yieldG, doseG, tempC, marksFiner }: OwnNumbers, aim: AimNumbers): TasteChange[] {
  const by: Record<TasteLever, number> = {
    yield: yieldG / aim.yieldG - 1,
    grind: marksFiner,
    dose: tenth(doseG - aim.doseG),
    temperature: tempC === null || aim.tempC === null ? 0 : tenth(tempC - aim.tempC),
  };
  return tasteLevers.flatMap((lever) => (by[lever] === 0 ? [] : [{ lever, by: by[lever] }]));
}

/** What is wrong with a cup. Both: sour and bitter at once, as an uneven bed tastes. */
export type TasteFault = 'sour' | 'bitter' | 'both' | 'weak' | 'strong';

/** What the house makes of a cup. */
export interface TasteVerdict {
  /** Empty: it tastes as it should, as far as anybody said. */
  faults: TasteFault[];
  /** The one change by the house's first lever, or by another where that would mend one fault and worsen another; null: none. */
  change: TasteChange | null;
  /** True when another lever takes the place of the house's first. */
  instead: boolean;
  /** The other levers that help, the one that needs no purge first. */
  alternatives: TasteChange[];
  /** Two changes at once, against the rule, for a cup that is sour and bitter; null for any other. */
  atOnce: readonly [TasteChange, TasteChange] | null;
}

/** A little less coffee and a little coarser, g. */
const LESS_AT_ONCE_G = -0.4;
/** An effect smaller than this is hardly tasted. */
const LEAST_EFFECT = 0.25;

/** A bar that nobody described: its collar turns by marks as they usually are, and everything can be done. */
const anyBar = { steps: usualSteps, can: () => true };

/** How far a score lies above its stretch, and below it where that is a fault too. */
function missesOf(tasted: Tasted, { sourBitter, weakStrong }: TasteAim): Record<LeverAxis, number> {
  const above = (score: number | null, high: number): number => (score === null ? 0 : Math.max(0, score - high));
  const below = (score: number | null, low: number): number => (score === null ? 0 : Math.min(0, score - low));
  return {
    // Sour by so much as the aim leaves room below its middle.
    acidity: above(tasted.acidity, 10 - sourBitter.low),
    bitterness: above(tasted.bitterness, sourBitter.high),
    strength: above(tasted.strength, weakStrong.high) + below(tasted.strength, weakStrong.low),
  };
}

/**
 * What the house changes for a cup, by its first lever and by what its levers do.
 * @param bar how far its levers go at a time, and whether a change can be carried out there: what cannot is not advised
 */
export function judgeTaste(
  tasted: Tasted,
  aim: TasteAim,
  first: TasteLever,
  effects: LeverEffects = leverEffects([]),
  { steps, can }: { steps: LeverSteps; can: (change: TasteChange) => boolean } = anyBar,
): TasteVerdict {
  const misses = missesOf(tasted, aim);
  const faults = faultsOf(misses);
  if (faults.length === 0) return { faults, change: null, instead: false, alternatives: [], atOnce: null };
  const order = [first, ...tasteLevers.filter((lever) => lever !== first)];
  const found = order.flatMap((lever): TasteChange[] => {
    const way = wayOf(effects[lever], misses);
    const change = { lever, by: way * steps[lever] };
    return way === 0 || !can(change) ? [] : [change];
  });
  const [change = null, ...alternatives] = found;
  const atOnce = [
    { lever: 'dose', by: LESS_AT_ONCE_G },
    { lever: 'grind', by: -steps.grind },
  ] as const;
  return {
    faults,
    change,
    instead: change !== null && change.lever !== first,
    alternatives,
    atOnce: faults.includes('both') && atOnce.every(can) ? atOnce : null,
  };
}

function faultsOf({ acidity, bitterness, strength }: Record<LeverAxis, number>): TasteFault[] {
  const faults: TasteFault[] = [];
  if (acidity > 0 && bitterness > 0) faults.push('both');
  else if (acidity > 0) faults.push('sour');
  else if (bitterness > 0) faults.push('bitter');
  if (strength !== 0) faults.push(strength < 0 ? 'weak' : 'strong');
  return faults;
}

/** Up, down, or not at all: a lever is used when it helps with what is wrong and harms nothing else that is. */
function wayOf(effect: LeverEffects[TasteLever], misses: Record<LeverAxis, number>): number {
  for (const way of [1, -1]) {
    const helps = leverAxes.map((axis) => {
      const { mean } = effect[axis];
      return Math.abs(mean) < LEAST_EFFECT ? 0 : -Math.sign(misses[axis]) * Math.sign(mean) * way;
    });
    if (helps.some((help) => help > 0) && helps.every((help) => help >= 0)) return way;
  }
  return 0;
}
