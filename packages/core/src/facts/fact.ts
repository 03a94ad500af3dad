import type { DoseWay, Fill, Measured, Sighting } from './measured.ts';

/**
 * The shapes of facts as the core reads them. The contract's zod schemas are held equal to these at compile time.
 * Ids are UUIDs, `at` is ISO 8601 with a zone, numbers carry their unit in the name.
 */

/** What can be wrong with a shot. */
export const flaws = [
  'channel',
  'uneven',
  'wrongDose',
  'choke',
  'other',
  'ring',
  'oneSide',
  'jets',
  'paleEarly',
] as const;

export type Flaw = (typeof flaws)[number];
export type MeasuredBy = 'scale' | 'hand';

export interface ShotBody {
  recipeVersionId: string;
  setting: number;
  doseG: number;
  yieldG: number;
  timeS: number;
  firstDropS: number | null;
  flaw: Flaw | null;
  measuredBy: MeasuredBy;
  trace: { hz: number; massG: (number | null)[] } | null;
  /** True when something of the trace was lost on the way: a device went, or a recording broke off. */
  partial?: boolean | undefined;
  /** True for a shot that checks a group at the setting where the grinder holds; it is no shot of the dialling in. */
  check?: boolean | undefined;
  /** True for a customer's own shot, timed in service; it is a check as well. */
  service?: boolean | undefined;
  /** What the machine's volume counter showed; absent where it has none. */
  volumeCount?: number | undefined;
  /** How dose and yield are known; absent: both on the scale. */
  measured?: Measured | undefined;
  /** What a marked glass showed, crema included, ml; beside a weighed yield it teaches what a millilitre weighs. */
  glassMl?: number | undefined;
}

export interface DoseBody {
  setting: number;
  doseG: number;
  /** Null when the dose was not ground by time. */
  grindTimeS: number | null;
  measuredBy: MeasuredBy;
  /** How the dose is known; absent: on the scale. */
  way?: DoseWay | undefined;
  /** How full it was struck or ground; absent: nobody looked. */
  fill?: Fill | undefined;
  /** What the grind time gave before a second go topped it up, or before what was over came out, g. */
  firstPartG?: number | undefined;
  /** Where the quantity dial of an automat stood. */
  quantityDial?: number | undefined;
}

export interface CollarMoveBody {
  from: number;
  to: number;
  /** What the engine had asked for; null when it was not asked. */
  advisedTo: number | null;
  /** True for a small move between two orders: what was locked goes on, at another mark. */
  service?: boolean | undefined;
}

export interface PurgeBody {
  purgeG: number;
  /** Where the grounds went; absent: away. Put back into a chamber they are not used, the kitchen's are counted apart. */
  into?: 'chamber' | 'kitchen' | undefined;
  /** Absent: to clear the setting before. Burrs run in, and grounds stale from the night, are causes of their own. */
  why?: 'burrs' | 'stale' | undefined;
  /** As the house counted it, where not in grams. */
  counted?: { by: 'seconds' | 'portafilters' | 'doses'; n: number } | undefined;
}

export interface LockBody {
  recipeVersionId: string;
  setting: number;
  doseTimeS: number | null;
  /** The dose that was trimmed between two marks; absent: the recipe's. */
  doseG?: number | undefined;
  /** Grind times of the coffee's other recipes at this setting; absent: there are none, or nothing is ground by time. */
  otherDoses?: { recipeVersionId: string; doseTimeS: number }[] | undefined;
  /** The engine's chance that the mean is inside, and the expected shot with its 80 % band. */
  chance: number;
  expected: { timeS: number; lowS: number; highS: number };
  nextCheckMin: number;
  /** The shots it rests on. */
  shotIds: string[];
}

/** Another bag went into the hopper. */
interface NewBagBody {
  /** Day of the roast, as on the bag: YYYY-MM-DD; null when it says none. */
  roastedOn: string | null;
  /** The bag of the stock list; absent: one that nobody listed. */
  bagId?: string | undefined;
  /** Which coffee; absent: the same as before. */
  coffeeId?: string | undefined;
  /** True when the hopper held another coffee before: what was learned of the level no longer holds. */
  otherCoffee?: boolean | undefined;
}

export interface CorrectionBody {
  /** The fact that this one corrects. */
  factId: string;
  /** True: it did not happen as recorded and no longer counts. */
  withdrawn: boolean;
  /** New values of a shot; absent fields stay as they were. */
  shot: Partial<Pick<ShotBody, 'doseG' | 'yieldG' | 'timeS' | 'firstDropS' | 'flaw'>> | null;
}

/** Something that eyes or fingers tell of grounds, cup or puck. */
export interface SeenBody {
  setting: number;
  sign: Sighting;
  /** Which recipe a look went by; absent where no window is meant. */
  recipeVersionId?: string | undefined;
}

export interface FactBodies {
  shot: ShotBody;
  dose: DoseBody;
  collarMove: CollarMoveBody;
  purge: PurgeBody;
  lock: LockBody;
  newBag: NewBagBody;
  seen: SeenBody;
  correction: CorrectionBody;
}

export type FactKind = keyof FactBodies;

/** Every kind of fact of a grinder. */
export const factKinds = [
  'shot',
  'dose',
  'collarMove',
  'purge',
  'lock',
  'newBag',
  'seen',
  'correction',
] as const satisfies readonly FactKind[];

/** Every kind that the journal holds. */
export const entryKinds = [...factKinds, 'step'] as const;

export type FactOf<K extends FactKind> = {
  [Kind in K]: {
    id: string;
    kind: Kind;
    /** When it happened by the house's clock (`houseTimeMs`). */
    at: string;
    /** Who did it. */
    personId: string;
    grinderId: string;
    groupId: string | null;
    body: FactBodies[Kind];
  };
}[K];

export type AnyFact = FactOf<FactKind>;
