import type { Direction } from './dial.ts';
import type { Judgement } from './judgement.ts';
import type { CaseFit } from './caseFit.ts';
import type { Expected } from './move.ts';
import type { Reason } from './reason.ts';

export type AdviceAction = 'move' | 'repeat' | 'lock' | 'dose';

/** What staying and moving are expected to cost until the lock, in shots' worth of coffee and time. */
export interface Weighed {
  repeatCost: number;
  /** The cheapest move; null where the dial has no other mark. */
  move: { setting: number; cost: number } | null;
}

/** The one next thing to do at a grinder, and why. */
export interface Advice {
  action: AdviceAction;
  /** Where the dial stands now. */
  from: number;
  /** Where the dial shall stand. */
  setting: number;
  /** Marks to turn, unsigned; 0 when the collar stays. */
  marks: number;
  direction: Direction | null;
  /** Purge before the next shot, grams. */
  purgeG: number;
  /** The dose to weigh from now on: trimmed between two marks, or named because the last one was off; null: the recipe's. */
  doseG: number | null;
  predicted: Expected;
  /** What is expected where the collar stands now. */
  here: Expected;
  nextCheckMin: number;
  judgement: Judgement;
  /** No mark of the dial is likely to hold the window; this is the best there is. */
  beyondDial: boolean;
  /** Null where nothing was weighed: no shot yet, no evidence, or a house that counts good shots. */
  weighed: Weighed | null;
  /** Chance of the window here, where no mark in reach and no trim does better: a person may stop and say so. Null elsewhere. */
  closeEnough: number | null;
  /** Which rule of good sense decided; null: the chances did. */
  because: 'farOut' | 'addsUp' | 'endOfDial' | 'noAnswer' | 'besides' | 'smallMiss' | null;
  /** What the engine holds, for whoever wants to see why. */
  fit: CaseFit;
  /** Most telling first. */
  reasons: Reason[];
}
