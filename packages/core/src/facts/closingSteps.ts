/** What is kept up at a machine. */
export const machineUpkeeps = ['filter', 'gaskets', 'screens', 'descaling', 'service'] as const;
/** What is kept up at the bar. */
export const upkeepKinds = [...machineUpkeeps, 'burrs'] as const;
export type UpkeepKind = (typeof upkeepKinds)[number];

/** Beans came out of a closed hopper into a tub; null: nobody weighed them. */
interface HopperEmptiedStep {
  step: 'hopperEmptied';
  grinderId: string;
  tubG: number | null;
}

interface ChuteBrushedStep {
  step: 'chuteBrushed';
  grinderId: string;
}

/** A group was back-flushed, with detergent or with water, and looked at. */
interface BackFlushedStep {
  step: 'backFlushed';
  groupId: string;
  detergent: boolean;
  /** Flushed on until nothing of it was left. */
  rinsedClear: boolean;
  /** The screen was taken down and cleaned. */
  screenDown: boolean;
  /** Null: nobody looked. */
  gasketGood: boolean | null;
}

/** Baskets and spouts lie in their bath. */
interface SoakedStep {
  step: 'soaked';
}

interface WandCleanedStep {
  step: 'wandCleaned';
  machineId: string;
}

interface TraysCleanedStep {
  step: 'traysCleaned';
  machineId: string;
}

interface SwitchedOffStep {
  step: 'switchedOff';
  machineId: string;
  to: 'off' | 'standby';
}

/** Something was kept up: a filter changed, burrs fitted, a service done. */
interface UpkeptStep {
  step: 'upkept';
  what: UpkeepKind;
  /** The machine, or the grinder of the burrs. */
  stationId: string;
  /** Who did it, where it was not whoever wrote it down; empty: the same. */
  by: string;
}

/** What falls due was gone through; what was left for another day, in words. */
interface UpkeepSeenStep {
  step: 'upkeepSeen';
  left: string[];
}

/** What tomorrow begins with. */
interface TomorrowStep {
  step: 'tomorrow';
  /** Null: the house does not open. */
  opensAt: string | null;
  opensById: string | null;
  /** The bag that each hopper begins with. */
  bags: { grinderId: string; bagId: string }[];
  /** Bags that left the freezer tonight. */
  thawed: string[];
}

/** A bag left the freezer. */
interface ThawedStep {
  step: 'thawed';
  bagId: string;
}

/** The steps of a closing, and of what is kept up. */
export type ClosingStep =
  | HopperEmptiedStep
  | ChuteBrushedStep
  | BackFlushedStep
  | SoakedStep
  | WandCleanedStep
  | TraysCleanedStep
  | SwitchedOffStep
  | UpkeptStep
  | UpkeepSeenStep
  | TomorrowStep
  | ThawedStep;
