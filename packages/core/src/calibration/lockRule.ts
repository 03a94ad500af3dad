import type { AdviceCase, ShotOutcome, CaseShot } from './adviceCase.ts';
import { engineDefaults } from './engineDefaults.ts';
import { doseSound, missOf } from './judgement.ts';
import type { Expected } from './move.ts';

/** What the house's rule says of the setting where the collar stands. */
export interface LockVerdict {
  lock: boolean;
  /** It locks because more shots would not change the answer, although the rule is not met. */
  settled: boolean;
}

const NEEDED = { firstGood: 1, oneRepeat: 2, meanOfThree: 3 } as const;

/**
 * Whether the house trusts the setting: by sureness, or by counting good shots. Always wants at least one sound shot at
 * this very setting. A station is settled, whatever the rule says, when its doubt is so small that repeats change nothing,
 * or when a second shot has shown that not even the best mark is likely to hold.
 */
export function lockVerdict(
  input: AdviceCase,
  heard: readonly ShotOutcome[],
  here: Expected,
  isBest: boolean,
): LockVerdict {
  const sound = soundRun(input, heard, here.setting);
  if (sound.length === 0) return { lock: false, settled: false };
  if (ruleMet(input, sound, here)) return { lock: true, settled: false };
  const { settledSd, hopeless } = engineDefaults;
  const settled = isBest && (here.sd <= settledSd || (here.inWindow < hopeless && sound.length > 1));
  return { lock: settled, settled };
}

function ruleMet({ house, recipe }: AdviceCase, soundS: readonly number[], here: Expected): boolean {
  if (house.lockRule === 'sureness') return here.inWindow >= house.sureness;
  const needed = NEEDED[house.lockRule];
  const last = soundS.slice(-needed);
  if (last.length < needed) return false;
  const judged = house.lockRule === 'meanOfThree' ? [last.reduce((sum, s) => sum + s, 0) / needed] : last;
  return judged.every((timeS) => missOf(timeS, recipe.timeS) === 0);
}

/** Normalised seconds of the sound shots at this setting since the collar last came there. */
function soundRun(input: AdviceCase, heard: readonly ShotOutcome[], setting: number): number[] {
  const since = input.shots.findLastIndex((shot) => shot.setting !== setting) + 1;
  return input.shots.slice(since).flatMap((shot: CaseShot, i) => {
    const outcome = heard[since + i];
    const sound = outcome && outcome.oldShare <= engineDefaults.oldShareNotPurged && doseSound(shot, input);
    return sound && shot.fault === null && outcome.normalisedS !== null ? [outcome.normalisedS] : [];
  });
}
