import type { Dial } from './dial.ts';

/** Why a shot is no plain evidence about the grind. */
export type ShotFault = 'channel' | 'prep' | 'choke';

/** One shot as the engine hears it; grams, seconds, dial numbers. Times are ms since the epoch, null when unknown. */
export interface HeardShot {
  atMs: number | null;
  setting: number;
  doseG: number;
  yieldG: number;
  timeS: number;
  firstDropS: number | null;
  /** Grams ground and thrown away since the last collar move; null when nobody said: taken as done. */
  purgedG: number | null;
  fault: ShotFault | null;
}

type HouseEventKind = 'newBag' | 'refill' | 'cleaned' | 'serviced';

export interface HouseEvent {
  atMs: number;
  kind: HouseEventKind;
}

export interface RecipeTarget {
  doseG: number;
  yieldG: number;
  timeS: { min: number; max: number };
  /** Null: the engine's default. */
  doseToleranceG: number | null;
}

/** Everything one piece of advice is made from. Shots oldest first. */
export interface AdviceCase {
  recipe: RecipeTarget;
  dial: Dial;
  /** Seconds of shot time that one mark is worth; null when nobody knows. */
  secondsPerMark: number | null;
  /** Grounds held between burrs and spout; null when nobody knows. */
  retentionG: number | null;
  house: { sureness: number; risk: number };
  /** Since this grinder last held its window; null: never. */
  since: { newBag: boolean; hours: number } | null;
  /** Where and at what normalised time it last held; null: unknown, or where the first shot was pulled. */
  held: { setting: number; timeS: number } | null;
  /** Null: nothing drifts between shots. */
  nowMs: number | null;
  events: readonly HouseEvent[];
  shots: readonly HeardShot[];
  /** Where the collar stands; null: where the last shot was pulled. */
  standsAt: number | null;
  /** Grams purged since the last shot or the last collar move, whichever came later. */
  purgedG: number;
}
