import type { Advice, BenchState } from '@tempera/core/calibration';
import { grams } from '../kernel/format.ts';
import { adviceTitle } from '../ui/adviceWords.ts';

/** Where a bench stands in its round: weigh, pull, act on the advice; until locked. */
export type Step = 'dose' | 'ready' | 'pulling' | 'dripping' | 'typing' | 'act' | 'locked' | 'checked';

export interface StepInput {
  /** Stopped by the scale it drips; stopped by the clock alone its numbers are typed. */
  pull: 'none' | 'running' | 'dripping' | 'typing';
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
  if (pull === 'running') return 'pulling';
  if (pull === 'dripping' || pull === 'typing') return pull;
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

/** The one next thing, in one line. @param stop how the house ends a shot */
export function instructionOf(step: Step, advice: Advice, recipe: { doseG: number }, stop: string): string {
  switch (step) {
    case 'pulling':
      return stop;
    case 'dripping':
      return 'Let the last drops fall';
    case 'ready':
      return 'Lock in and pull the shot';
    case 'typing':
      return 'Type what is in the cup';
    case 'act':
      return advice.action === 'move' || advice.action === 'lock'
        ? adviceTitle(advice)
        : `Purge ${grams(advice.purgeG)}`;
    case 'checked':
      return 'Go back and see what it says';
    case 'locked':
      return 'Locked: it holds its window';
    case 'dose':
      return advice.judgement.kind === 'noShot' || advice.judgement.kind === 'moved'
        ? `Weigh ${grams(recipe.doseG)}`
        : `Weigh ${grams(recipe.doseG)} and pull the same again`;
  }
}
