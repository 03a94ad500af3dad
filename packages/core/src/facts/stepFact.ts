import type { ClosingStep } from './closingSteps.ts';

/** What is done to the bar itself, beside the grinders' own facts: the machines' steps and the run of the opening. */
export const machineSteps = ['switchedOn', 'hot', 'takenBack'] as const;

/** The jobs of an opening and of a closing, in the order in which a bar does them. */
export const jobKinds = [
  'water',
  'switchOn',
  'hot',
  'scale',
  'hopper',
  'rinse',
  'firstDose',
  'dial',
  'doseTime',
  'groupCheck',
  'button',
  'taste',
  'milk',
  'emptyHopper',
  'brushChute',
  'soak',
  'backFlush',
  'wand',
  'trays',
  'switchOff',
  'upkeep',
  'tomorrow',
  'signOff',
] as const;
export type JobKind = (typeof jobKinds)[number];

/** What a gauge showed, in its own unit. */
export interface GaugeReading {
  gauge: string;
  value: number;
}

/** A machine was switched on, was found hot, or any step did not happen after all. */
interface MachineStepOf<K extends (typeof machineSteps)[number]> {
  step: K;
  /** Null where a step is taken back that is no machine's. */
  machineId: string | null;
  /** What the gauges showed; empty where nobody read any. */
  readings: GaugeReading[];
  /** The step that did not happen after all; null unless this one takes it back. */
  takesBack: string | null;
  /** The change of today's aim that is undone by it: found by `standingFacts`, never written. */
  undid?: UndoneAim;
}

/** An aim that no longer counts, and of which what was locked meanwhile still speaks. */
export interface UndoneAim {
  grinderId: string;
  /** When it was changed. */
  atMs: number;
}

type MachineStep = { [K in (typeof machineSteps)[number]]: MachineStepOf<K> }[(typeof machineSteps)[number]];

/** Runs over the bar: the whole opening, the grinders in use once more, one station, or the closing. */
export const runKinds = ['opening', 'afternoon', 'station', 'closing'] as const;
export type RunKind = (typeof runKinds)[number];

/** What a run is planned for. Another `from` is another run, with a record of its own; the newest of one `from` counts. */
export interface PlannedStep {
  step: 'planned';
  /** Absent: an opening. */
  run?: RunKind | undefined;
  /** The grinders that it is about; absent: all of them. */
  grinderIds?: string[] | undefined;
  opensAt: string;
  /** When the opening began: what happened since belongs to it. */
  from: string;
  people: { personId: string; from: string }[];
  /** Whether the groups were back-flushed with detergent and must be rinsed twice. */
  detergent: boolean;
}

/** Somebody took a job in hand. */
interface BegunStep {
  step: 'begun';
  job: JobKind;
  stationId: string | null;
}

/** A job was left out, and why. */
interface SkippedStep {
  step: 'skipped';
  job: JobKind;
  stationId: string | null;
  why: string;
}

interface WaterStep {
  step: 'water';
  machineId: string;
  waterRuns: boolean;
  filterInDate: boolean;
}

interface ScaleStep {
  step: 'scale';
  knownG: number;
  shownG: number;
}

/** The coffee of yesterday goes on; another bag is a fact of its own. */
interface HopperStep {
  step: 'hopper';
  grinderId: string;
}

interface RinsedStep {
  step: 'rinsed';
  groupId: string;
  /** Null: it was rinsed without the tablet, and nobody counted. */
  rinseS: number | null;
  screenCleaned: boolean;
  /** Rinsed twice and the first shot thrown away, after detergent. */
  detergent: boolean;
}

/** What stood in the chute overnight is out, and the dose fits its basket; its grams are a purge of their own. */
interface FirstDoseStep {
  step: 'firstDose';
  grinderId: string;
}

/** A dose time verified by doses of its own. */
export interface DoseTimeStep {
  step: 'doseTime';
  grinderId: string;
  /** How the house doses. */
  way: 'timed' | 'weighed' | 'levelled' | 'line' | 'eye';
  /** Stale grounds thrown away along with it; 0 where that was a step of its own. */
  discardedG: number;
  /** Null where nothing is ground by time. */
  grindTimeS: number | null;
  dosesG: number[];
  holds: boolean;
}

/** What the shots through a group said of it. */
export interface GroupCheckedStep {
  step: 'groupChecked';
  groupId: string;
  /** Seconds that it runs slow (positive) or fast, with its doubt (one sd). */
  offS: number;
  sdS: number;
  finding: 'grinder' | 'group' | 'none' | 'unsure';
  /** What is off; null for none and unsure. */
  foundId: string | null;
  chance: number;
}

export const mendings = ['screen', 'gasket', 'programme', 'temperature'] as const;
/** Something was done about a group that is off. */
interface MendedStep {
  step: 'mended';
  groupId: string;
  what: (typeof mendings)[number];
}

/** A volume button measured, and what it counts from now on. */
interface ButtonStep {
  step: 'button';
  groupId: string;
  button: string;
  count: number;
  yieldsG: number[];
  nextCount: number;
}

/** One taster's word on a grinder's espresso; axes 0 to 10, null where nobody touched one. */
export interface TastedStep {
  step: 'tasted';
  grinderId: string;
  tasterId: string;
  /** The shot that was tasted; absent where nobody said which. */
  shotId?: string | null | undefined;
  acidity?: number | null | undefined;
  bitterness?: number | null | undefined;
  strength?: number | null | undefined;
  finish?: number | null | undefined;
  /** Against the cup before it, where nobody wanted to say more. */
  than?: 'same' | 'better' | 'worse' | undefined;
  /** Tasted in milk, as it is drunk. */
  inMilk?: boolean | undefined;
  /** Axes of older sheets: sour to bitter in one, weak to strong; null on newer ones. */
  sourBitter: number | null;
  weakStrong: number | null;
  body: number | null;
  sweetness: number | null;
  notes: string[];
  /** Strength, % TDS; null where nobody measured it. */
  tdsPct: number | null;
}

/** What the house made of the tasting. */
interface TasteSettledStep {
  step: 'tasteSettled';
  grinderId: string;
  /** The one change that was made; null: it stays as it is. A window goes with a turn of the collar, `by` seconds later. */
  change: { lever: 'yield' | 'grind' | 'dose' | 'temperature' | 'window'; by: number } | null;
}

/** A cup of a trial: as it was meant, or as it was poured. */
export interface TrialCupNumbers {
  ratio: number;
  timeS: number;
  doseG: number;
  tempC: number;
}

/** What taste changed today holds tomorrow too. */
export interface AimKeptStep {
  step: 'aimKept';
  grinderId: string;
  /** All that taste has changed of the recipe, kept ones too, in their order. */
  changes: { lever: 'yield' | 'dose' | 'temperature' | 'window'; by: number }[];
  /** The end of the business day that it holds through. */
  holdsUntil: string;
  /** Days that it has held by then, the first one among them. */
  days: number;
}

/** A trial of a coffee began: a recipe is looked for by tasting, from the roaster's start. */
export interface TrialBeganStep {
  step: 'trialBegan';
  trialId: string;
  coffeeId: string;
  start: TrialCupNumbers;
  /** What is varied. */
  axes: (keyof TrialCupNumbers)[];
  /** What a move of the collar throws away. */
  purgeG: number;
  /** The taster does not know which cup is which. */
  blind: boolean;
}

/** Somebody's word on one cup of a pair; null where nothing was said. */
interface TrialCupWord {
  sourBitter: 'sour' | 'right' | 'bitter' | null;
  weakStrong: 'weak' | 'right' | 'strong' | null;
}

/** Two cups of a trial tasted side by side. */
export interface TrialTastedStep {
  step: 'trialTasted';
  trialId: string;
  tasterId: string;
  left: TrialCupNumbers;
  right: TrialCupNumbers;
  better: 'leftMuch' | 'left' | 'same' | 'right' | 'rightMuch';
  leftWord: TrialCupWord;
  rightWord: TrialCupWord;
}

/** What happens at a grinder, and at the whole bar, that its cups may feel. */
export const happenings = [
  'refill',
  'cleaned',
  'otherHands',
  'chamberFilled',
  'chamberEmptied',
  'doors',
  'ovens',
  'rushBegan',
  'rushEnded',
] as const;
export type Happening = (typeof happenings)[number];

/** Something happened in service; null: to the whole bar. */
interface HappenedStep {
  step: 'happened';
  what: Happening;
  grinderId: string | null;
}

/** The room's air, as a thermo-hygrometer tells it. */
interface AirStep {
  step: 'air';
  tempC: number;
  humidityPct: number;
  measuredBy: 'device' | 'hand';
}

/** The dose from now on, and the grind time that gives it: a trim, or a timer that was put right; null: not ground by time. */
interface DoseSetStep {
  step: 'doseSet';
  grinderId: string;
  doseG: number;
  grindTimeS: number | null;
}

/** A look that was due is put off, and by how much. */
interface PutOffStep {
  step: 'putOff';
  grinderId: string;
  minutes: number;
}

/** A short note, pinned to a grinder, a coffee, or the day where neither is named. */
interface NoteStep {
  step: 'note';
  text: string;
  grinderId: string | null;
  coffeeId: string | null;
}

/** What a note asked for is done. */
interface NoteDoneStep {
  step: 'noteDone';
  noteId: string;
}

/** Somebody leaves the bar to the next one, as the page told it. */
interface HandedOverStep {
  step: 'handedOver';
  says: string[];
}

/** Somebody took it over, having read it. */
interface TakenOverStep {
  step: 'takenOver';
  handedOverId: string;
}

interface MilkStep {
  step: 'milk';
  purged: boolean;
  steamBar: number | null;
  /** Null: this bar steams by the hand's heat. */
  thermometer: { in: 'ice' | 'boiling'; showedC: number } | null;
  stopC: number | null;
}

/** The head barista signed for the bar as it stood. */
interface SignedOffStep {
  step: 'signedOff';
  /** What was not right, in words, as the page showed it. */
  notRight: string[];
}

/** The steps of the opening's run, each with what was seen and done. */
type RunStep =
  | PlannedStep
  | BegunStep
  | SkippedStep
  | WaterStep
  | ScaleStep
  | HopperStep
  | RinsedStep
  | FirstDoseStep
  | DoseTimeStep
  | GroupCheckedStep
  | MendedStep
  | ButtonStep
  | TastedStep
  | TasteSettledStep
  | AimKeptStep
  | TrialBeganStep
  | TrialTastedStep
  | HappenedStep
  | AirStep
  | DoseSetStep
  | PutOffStep
  | NoteStep
  | NoteDoneStep
  | HandedOverStep
  | TakenOverStep
  | MilkStep
  | ClosingStep
  | SignedOffStep;

export type StepBody = MachineStep | RunStep;
export type StepKind = StepBody['step'];
export type StepOf<K extends StepKind> = K extends StepKind ? Extract<StepBody, { step: K }> : never;

/** A fact about the bar itself; shaped like the grinders' facts, so that one journal holds both. */
export interface StepFact<B extends StepBody = StepBody> {
  id: string;
  kind: 'step';
  at: string;
  /** Who did it. */
  personId: string;
  grinderId: null;
  groupId: null;
  body: B;
}

/** The stations that a step names. */
export function stationsOf(body: StepBody): { machineId?: string; grinderId?: string; groupId?: string } {
  const stations: { machineId?: string; grinderId?: string; groupId?: string } = {};
  if ('machineId' in body && body.machineId !== null) stations.machineId = body.machineId;
  if ('grinderId' in body && body.grinderId !== null) stations.grinderId = body.grinderId;
  if ('groupId' in body) stations.groupId = body.groupId;
  if (body.step === 'upkept') stations[body.what === 'burrs' ? 'grinderId' : 'machineId'] = body.stationId;
  return stations;
}
