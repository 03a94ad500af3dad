import { expectAt, settingAt, type Advice, type AdviceCase, type Expected } from '@tempera/core/calibration';

const POINTS = 41;
const LEAST_STEPS = 4;
/** Below this weight a shot is drawn as one that counts for little. */
const COUNTS = 0.5;

/** The engine's curve over the part of the dial that is in question: shots, where it stands, where it shall go. */
export function curveOf(input: AdviceCase, advice: Advice): Expected[] {
  const { dial, shots } = input;
  const marked = [advice.from, advice.setting, ...shots.map((shot) => shot.setting)];
  const room = LEAST_STEPS * dial.stepMarks;
  const ends = dial.range ?? { min: -Infinity, max: Infinity };
  const low = Math.max(ends.min, Math.min(...marked) - room);
  const high = Math.min(ends.max, Math.max(...marked) + room);
  return Array.from({ length: POINTS }, (_, i) => {
    const marks = ((high - low) * i) / (POINTS - 1);
    return expectAt(advice.fit, input, settingAt({ ...dial, finer: 'up' }, marks, low));
  });
}

/** The shots of the case at the recipe's dose and yield, and whether each counts for much. */
export function shotPoints(input: AdviceCase, { fit }: Advice): { setting: number; timeS: number; counts: boolean }[] {
  return input.shots.map((shot, i) => {
    const heard = fit.heard[i];
    return {
      setting: shot.setting,
      timeS: heard?.normalisedS ?? shot.timeS,
      counts: (heard?.weight ?? 0) >= COUNTS && shot.fault === null,
    };
  });
}
