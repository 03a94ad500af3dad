import type { Flaw, Measured } from '../facts/index.ts';
import type { BarModel } from './barModel.ts';
import type { Chute } from './retention.ts';
import type { Felt } from './texture.ts';
import type { Habit } from './habit.ts';
import type { Dial } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';

/** Why a shot is no plain evidence about the grind. */
export type ShotFault = 'channel' | 'prep' | 'choke';

/** One shot as the engine hears it; grams, seconds, dial numbers. Times are ms since the epoch, null when unknown. */
export interface CaseShot {
  atMs: number | null;
  setting: number;
  doseG: number;
  yieldG: number;
  timeS: number;
  firstDropS: number | null;
  /** Grams ground and thrown away since the last collar move; null when nobody said: taken as done. */
  purgedG: number | null;
  fault: ShotFault | null;
  /** What was seen of it, where that is more than the fault says. */
  flaw?: Flaw | null;
  /** Which group it ran through; null when nobody said. */
  group: string | null;
  /** Who pulled it; absent or null when nobody said. */
  by?: string | null;
  /** How dose and yield are known; absent: both on the scale. */
  measured?: Measured | undefined;
}

type HouseEventKind = 'newBag' | 'newCoffee' | 'refill' | 'cleaned' | 'serviced';

export interface HouseEvent {
  atMs: number;
  kind: HouseEventKind;
}

export interface RecipeTarget {
  /** Which recipe, whatever its version; absent: the only one there is. */
  recipeId?: string;
  doseG: number;
  yieldG: number;
  timeS: { min: number; max: number };
  /** Null: the engine's default. */
  doseToleranceG: number | null;
  /** Whether more than `doseG` is too much, whatever the tolerance says of less. */
  doseNoMore?: boolean;
  /** When the first drop should fall; absent: the recipe does not say. */
  firstDropS?: { min: number; max: number };
  /** What the basket takes; absent: nobody said. */
  basketG?: { min: number; max: number };
}

/** When a setting is good enough: the schools of the house book. */
export const lockRules = ['sureness', 'firstGood', 'oneRepeat', 'meanOfThree'] as const;
export type LockRule = (typeof lockRules)[number];

/** What may take up the rest between two marks of a stepped grinder. */
export const trimRules = ['dose', 'yield', 'tamp', 'none'] as const;
type TrimRule = (typeof trimRules)[number];

/** When a locked grinder is looked at again. */
export const recheckRules = ['drift', 'hours', 'changes'] as const;
type RecheckRule = (typeof recheckRules)[number];

/** How far a collar is turned at once. */
export const moveCaps = ['computed', 'three', 'one'] as const;
/** What answers a miss of two or three seconds. */
export const smallMisses = ['collar', 'tamp', 'dose'] as const;

/** How the house wants its advice. */
export interface DecisionPolicy {
  /** Chance that the mean is inside at which a setting is trusted, 0..1. */
  sureness: number;
  /** Chance of being outside at which a check falls due, 0..1. */
  risk: number;
  lockRule: LockRule;
  trim: TrimRule;
  /** The longest that a grinder goes without a timed shot, minutes; by fixed hours, how often it is looked at. */
  longestCheckMin: number;
  /** Absent: by the drift. */
  recheck?: RecheckRule;
  /** Absent: as far as computed. */
  moveCap?: (typeof moveCaps)[number];
  /** Absent: the collar. */
  smallMiss?: (typeof smallMisses)[number];
}

export const usualPolicy: DecisionPolicy = {
  sureness: engineDefaults.sureness,
  risk: engineDefaults.risk,
  lockRule: 'sureness',
  trim: 'dose',
  longestCheckMin: engineDefaults.longestCheckMin,
  recheck: 'drift',
  moveCap: 'computed',
  smallMiss: 'collar',
};

/** What the bar model holds of this grinder. */
export interface Remembered {
  bar: BarModel;
  /** The grinder's name in the bar model. */
  grinder: string;
  /** The coffee's, where the bar knows the grinder with more than one; absent: its first. */
  coffee?: string | null;
  /** Dial number at x = 0 of the bar model. */
  reference: number;
  /** The shots of the case that the bar has heard, first to last; absent: none, it is as the grinder last held. */
  heard?: FilteredBefore;
  /** The grinder's newest shots and looks, one by one; absent: nobody told of any. */
  evidence?: Evidence;
}

/** A grinder's newest shots and looks with the coffee in its hopper, oldest first, freed of group, dose and recipe. */
export interface Evidence {
  /** Level and response before the first of them, less what the bar holds of them now, and their doubt. */
  before: { level: number; response: number; levelVariance: number; responseVariance: number; levelResponse: number };
  shots: readonly EvidenceShot[];
  /** What happened since the last of them. */
  since: Jumps;
}

interface EvidenceShot extends Jumps {
  atMs: number;
  /** Marks finer than the bar's reference. */
  x: number;
  /** ln T less what the bar now holds of a shot there. */
  off: number;
  variance: number;
}

/** Variance that happenings add to a level, bags apart, and how many bags went in. */
interface Jumps {
  jumped: number;
  bags: number;
}

/** Of a case whose first shots the bar has heard already; the bar is then as of the case's `nowMs`. */
export interface FilteredBefore {
  outcomes: readonly ShotOutcome[];
  /** The bar just before the last of them. */
  before: BarModel;
  chute: Chute;
}

export interface ShotOutcome {
  /** Normalised shot time in seconds; null where the shot is no number (channel, prep, choke). */
  normalisedS: number | null;
  /** Share of the dose that came from the setting before, 0..1. */
  oldShare: number;
  /** 0: not counted; 1: counted in full; a little more where it lies just where it was expected. */
  weight: number;
}

/** What is known to be otherwise and is not the grind: a bag past its window, another basket than the recipe's. */
export type Besides = 'bagPast' | 'otherBasket';

/** Everything one piece of advice is made from. Shots oldest first. */
export interface AdviceCase {
  recipe: RecipeTarget;
  dial: Dial;
  /** Seconds of shot time that one mark is worth; null when nobody knows. */
  secondsPerMark: number | null;
  /** Grounds held between burrs and spout; null when nobody knows. */
  retentionG: number | null;
  house: DecisionPolicy;
  /** Since this grinder last held its window; null: never. */
  since: { newBag: boolean; newCoffee?: boolean; hours: number } | null;
  /** Where and at what normalised time it last held; null: unknown, or where the first shot was pulled. */
  held: { setting: number; timeS: number; /** Doubt of its ln T then; absent: that of a lock. */ sd?: number } | null;
  /** What the bar knew before the first of these shots; null: only what the case says. */
  remembered: Remembered | null;
  /** Grams that the dose was trimmed by when it last held. */
  trimG: number;
  /** Null: nothing drifts between shots. */
  nowMs: number | null;
  events: readonly HouseEvent[];
  shots: readonly CaseShot[];
  /** The newest shots before it last held, of the same bag: evidence adds up across locks. Absent: none. */
  earlier?: readonly CaseShot[];
  /** The group of the shots to come, where none of the case was pulled yet; absent: nobody says. */
  group?: string | null;
  /** Who pulls them, where none of the case was pulled yet; absent: nobody says. */
  by?: string | null;
  /** How the shots to come are measured, where none of the case was pulled yet; absent: on the scale. */
  measured?: Measured | undefined;
  /** How its grounds felt, where it never held and no shot was pulled yet; absent: nobody felt them. */
  felt?: Felt | null;
  /** Where the house begins with a grinder that nobody has dialled in; absent or null: where it stands. */
  startAt?: number | null;
  /** Known causes beside the grind; absent: none. */
  besides?: readonly Besides[];
  /** How this grinder usually goes through its day; absent or null: nobody has seen its days. */
  habit?: Habit | null;
  /** Whether taste changed what is poured here and no shot has shown it yet: nothing is turned before one was pulled. Absent: no. */
  untried?: boolean;
  /** Where the collar stands; null: where the last shot was pulled. */
  standsAt: number | null;
  /** Grams purged since the last shot or the last collar move, whichever came later. */
  purgedG: number;
}
