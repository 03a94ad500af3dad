import type { Texture } from '../facts/index.ts';
import type { BarModel } from './barModel.ts';
import type { Habit } from './habit.ts';
import type { Passing } from './passing.ts';
import type { Chute } from './retention.ts';
import type { Dial } from './dial.ts';
import type { Observation } from './observations.ts';

/**
 * What the bar has taught, as one posterior: everything older in `base`, and of each grinder its newest shots apart, so that
 * a surprise among them can still be weighed by what came after it, wherever locks fell. Carried forward fact by fact;
 * plain data, so that it can be kept, sent and taken up again to the same numbers.
 */
export interface BarMemory {
  readonly base: BarModel;
  readonly grinders: Readonly<Record<string, GrinderMemory>>;
  readonly groups: Readonly<Record<string, GroupMemory>>;
  /** The room's air as it was told last; absent: never. */
  readonly air?: { readonly tempC: number; readonly humidityPct: number };
}

interface GroupMemory {
  /** When it was last pulled through, ms since the epoch. */
  readonly lastAtMs: number;
  readonly shots: number;
}

export interface GrinderMemory {
  /** What its sheet said; another sheet makes another memory. */
  readonly basis: Basis;
  /** The coffee in its hopper; null: the first, that its sheet is about. */
  readonly coffee: string | null;
  /** What the first coffee is called, once a bag said so. */
  readonly firstCoffeeId: string | null;
  readonly levels: readonly LevelMemory[];
  readonly chute: Chute;
  /** What went through since the last shot or collar move. */
  readonly passing: Passing;
  /** How its grounds felt before its first shot, x marks finer than the reference; absent: nobody felt them. */
  readonly felt?: { readonly x: number; readonly texture: Texture };
  readonly lastShotAtMs: number | null;
  /** Variance of the response, in parts of its square, that bags have added since the last shot. */
  readonly responseGained: number;
  readonly shots: number;
  /** Burrs that were changed in its time. */
  readonly newBurrs?: NewBurrs;
  /** How it goes through its days; absent: no shot of it was heard. */
  readonly habit?: Habit;
  /** The newest shots, oldest first: at least so many as are weighed by one another, at most twice that. */
  readonly recent: readonly RecentShot[];
}

/** When new burrs went in, bags that went through them since, and when they had lost their first edge; moments in ms since the epoch. */
export interface NewBurrs {
  readonly atMs: number;
  readonly bags: number;
  readonly settledAtMs: number | null;
}

/** The level of a grinder with one coffee. */
export interface LevelMemory {
  readonly coffee: string | null;
  /** The recipe that it is normalised to: the one of its first shot. */
  readonly recipe: {
    readonly doseG: number;
    readonly yieldG: number;
    readonly recipeId?: string;
    /** Middle of its window then, s. */
    readonly middleS?: number;
  };
  readonly lastAtMs: number;
  /** Variance that bags and happenings have added since, and how many bags there were; absent: none. */
  readonly gained: number;
  readonly bags?: number;
}

export interface RecentShot {
  readonly factId: string;
  readonly atMs: number;
  /** Null where it says nothing about the grind. */
  readonly observed: Observation | null;
  /** Share of its dose that came from the setting before. */
  readonly oldShare: number;
  /** Nobody timed it: somebody saw how it ran. */
  readonly looked?: true;
  /** Bags that went in since the one before; absent: none. */
  readonly bags?: number;
}

export interface Basis {
  readonly finer: Dial['finer'];
  readonly secondsPerMark: number | null;
  readonly retentionG: number | null;
  /** Dial number at x = 0. */
  readonly seedSetting: number;
}
