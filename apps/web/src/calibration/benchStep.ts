import type { Advice, BenchState } from '@tempera/core/calibration';
import { grams } from '../kernel/format.ts';
import { adviceTitle } from '../ui/adviceWords.ts';

/** Where a bench stands in its round: weigh, pull, act on the advice; until locked. */
export type Step =
  'dose' | 'ready' | 'pulling' | 'dripping' | 'typing' | 'forgotten' | 'elsewhere' | 'act' | 'locked' | 'checked';

/**
 * Where the pull of this device is. Stopped by the scale it drips; stopped by the clock alone its numbers are typed. One that ran for
 * minutes is asked about, and so is one that was started for another group.
 */
export type PullStage = 'none' | 'running' | 'dripping' | 'typing' | 'forgotten' | 'elsewhere';

export interface StepInput {
  pull: PullStage;
  doseWaits: boolean;
  state: Pick<BenchState, 'shots' | 'lastLock'>;
  advice: Advice;
  /** Whether the last lock's check has fallen due. */
  due: boolean;
  /** Whether somebody passed the advice over, to pull again. */
  passedOver?: boolean;
}

/** Whether the advice asks for hands on the grinder, and not just for another shot. */
function waitsForHands(advice: Advice): boolean {
  return advice.action === 'move' || advice.action === 'lock' || advice.purgeG > 0;
}

export function stepOf({ pull, doseWaits, state, advice, due, passedOver = false }: StepInput): Step {
  if (pull !== 'none') return pull === 'running' ? 'pulling' : pull;
  if (doseWaits) return 'ready';
  if (passedOver) return 'dose';
  if ((state.shots.length > 0 || advice.action === 'move') && waitsForHands(advice)) return 'act';
  return state.lastLock !== null && state.shots.length === 0 && !due ? 'locked' : 'dose';
}

/**
 * The same where a group is checked: nothing is turned, and what the shot says stands in the opening.
 * @param pulled whether a shot was pulled since the bench was opened for it
 */
export function checkStepOf(pull: StepInput['pull'], doseWaits: boolean, pulled: boolean): Step {
  if (pull !== 'none') return pull === 'running' ? 'pulling' : pull;
  if (doseWaits) return 'ready';
  return pulled ? 'checked' : 'dose';
}

/**
 * The one next thing, in one line.
 * @param station the dose, whether it is weighed, and whether the collar shows a number
 * @param stop how the house ends a shot
 */
export function instructionOf(
  step: Step,
  advice: Advice,
  { doseG, weighs = true, readsDial = true }: { doseG: number; weighs?: boolean; readsDial?: boolean },
  stop: string,
): string {
  const dose = `${weighs ? 'Weigh' : 'Dose'} ${grams(doseG)}`;
  switch (step) {
    case 'pulling':
      return stop;
    case 'dripping':
      return 'Let the last drops fall';
    case 'ready':
      return 'Lock in and pull the shot';
    case 'typing':
      return 'Type what is in the cup';
    case 'forgotten':
      return 'What became of this pull?';
    case 'elsewhere':
      return 'A pull is open on another group';
    case 'act':
      return advice.action === 'move' || advice.action === 'lock'
        ? adviceTitle(advice, readsDial)
        : `Purge ${grams(advice.purgeG)}`;
    case 'checked':
      return 'Go back and see what it says';
    case 'locked':
      return 'Locked: it holds its window';
    case 'dose':
      return advice.judgement.kind === 'noShot' || advice.judgement.kind === 'moved'
        ? dose
        : `${dose} and pull the same again`;
  }
}
