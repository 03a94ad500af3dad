import { checkStepOf, stepOf, type PullStage, type Step, type StepInput } from './benchStep.ts';

/** What may be asked for beside the round of weigh, pull and turn. */
type BenchDialog = 'turn' | 'look' | 'why' | 'bag';

/** What one device holds of a bench's round, beside the facts and the pull itself. */
export interface BenchHands {
  dialog: BenchDialog | null;
  /** The shot that is looked at; null: none. */
  editingId: string | null;
  /** The dose in the portafilter is thrown out, and another is on its way. */
  weighsAgain: boolean;
  /** How many shots there were when the advice was passed over: it stays in view, and the round goes on. */
  passedOverAt: number | null;
  /** Whether a shot is typed that was pulled without the app. */
  enters: boolean;
  /** A long pull that still runs is not asked about before this second. */
  asksAfterS: number;
}

export const idleHands: BenchHands = {
  dialog: null,
  editingId: null,
  weighsAgain: false,
  passedOverAt: null,
  enters: false,
  asksAfterS: 0,
};

/** What happens at a bench, as far as a device has to keep it in mind. */
export type BenchEvent =
  | { kind: 'opened'; dialog: BenchDialog }
  | { kind: 'edits'; shotId: string }
  | { kind: 'closed' }
  | { kind: 'weighsAgain' }
  | { kind: 'doseKept' }
  | { kind: 'passedOver'; shots: number }
  | { kind: 'enters' }
  | { kind: 'pullStarted' }
  | { kind: 'pullEnded' }
  | { kind: 'runsOn'; elapsedS: number };

/** Nobody leaves a shot running for so long on purpose. */
export const FORGOTTEN_S = 120;

/** What a device holds after something happened. */
export function benchAfter(hands: BenchHands, event: BenchEvent): BenchHands {
  switch (event.kind) {
    case 'opened':
      return { ...hands, dialog: event.dialog, editingId: null };
    case 'edits':
      return { ...hands, dialog: null, editingId: event.shotId };
    case 'closed':
      return { ...hands, dialog: null, editingId: null };
    case 'weighsAgain':
      return { ...hands, weighsAgain: true };
    case 'doseKept':
      return { ...hands, weighsAgain: false };
    case 'passedOver':
      return { ...hands, passedOverAt: event.shots, dialog: null };
    case 'enters':
      return { ...hands, enters: true, dialog: null };
    case 'pullStarted':
      return { ...idleHands };
    case 'pullEnded':
      return { ...idleHands };
    case 'runsOn':
      return { ...hands, asksAfterS: event.elapsedS + FORGOTTEN_S };
  }
}

/** The pull on this device, as far as the round hangs on it. */
export interface PullInHand {
  groupId: string;
  elapsedS: number;
  /** Null while it runs. */
  stoppedAtS: number | null;
  /** Whether a scale has its yield, so that nobody types it. */
  byScale: boolean;
}

/** What is seen from outside: the facts' state, and the pull. */
export interface BenchSeen extends Omit<StepInput, 'pull' | 'passedOver' | 'doseWaits'> {
  pull: PullInHand | null;
  groupId: string;
  /** The recipe's latest second. */
  timeMaxS: number;
  /** Whether a dose waits in the portafilter. */
  doseWaits: boolean;
  /** Whether a group is checked, and whether its shot was pulled; null: the grinder is dialled in. */
  check: { pulled: boolean } | null;
}

/** What a bench shows and lets be done. */
export interface BenchScreen {
  pull: PullStage;
  step: Step;
  /** A dose waits and was not thrown out. */
  doseWaits: boolean;
  /** Nothing runs, drips or is typed: everything may be done. */
  free: boolean;
}

/** So many times the recipe's yield, after a time at which a pull is asked about, is water that nobody stopped, and no gush. */
const OVERFULL = 3;

/** Whether a pull that ended was left running: what is in the cup then says nothing of the grind. */
export const ranOver = (shot: { timeS: number; yieldG: number }, recipeYieldG: number): boolean =>
  shot.timeS >= FORGOTTEN_S && shot.yieldG > OVERFULL * recipeYieldG;

/** A shot this much longer than its window is forgotten, however long the recipe is. */
const LONG_SHARE = 1.5;
/** A shot that runs for so long was left, s. @param timeMaxS its recipe's latest second */
export const leftAfterS = (timeMaxS: number): number => Math.max(FORGOTTEN_S, LONG_SHARE * timeMaxS);

function stageOf({ enters, asksAfterS }: BenchHands, { pull, groupId, timeMaxS }: BenchSeen): PullStage {
  if (pull === null) return enters ? 'typing' : 'none';
  if (pull.groupId !== groupId) return 'elsewhere';
  if (pull.stoppedAtS !== null) return pull.byScale ? 'dripping' : 'typing';
  const longS = Math.max(leftAfterS(timeMaxS), asksAfterS);
  return pull.elapsedS >= longS ? 'forgotten' : 'running';
}

/** Where a bench stands, from what the device holds and what is seen. */
export function benchScreen(hands: BenchHands, seen: BenchSeen): BenchScreen {
  const pull = stageOf(hands, seen);
  const doseWaits = seen.doseWaits && !hands.weighsAgain;
  const passedOver = hands.passedOverAt === seen.state.shots.length;
  const step = seen.check
    ? checkStepOf(pull, doseWaits, seen.check.pulled)
    : stepOf({ ...seen, pull, doseWaits, passedOver });
  return { pull, step, doseWaits, free: pull === 'none' };
}
