import { middleThirdLn, windowMiddleS, type AdviceCase, type CaseFit, type CaseShot } from '../calibration/index.ts';

/** A sound shot and what it would have taken at the recipe's dose and yield, seconds. */
export interface Sound {
  shot: CaseShot;
  normalisedS: number;
}

/** The sound shots, newest first. */
export const soundOf = ({ shots }: Pick<AdviceCase, 'shots'>, { heard }: CaseFit): Sound[] =>
  shots
    .flatMap((shot, i) => {
      const normalisedS = shot.fault === null ? heard[i]?.normalisedS : null;
      return normalisedS == null ? [] : [{ shot, normalisedS }];
    })
    .toReversed();

/** On which side of the middle third a shot lies: 1 slow, -1 fast, 0 within it. */
export function sideOf({ recipe }: Pick<AdviceCase, 'recipe'>, sound: Sound | undefined): number {
  if (!sound) return 0;
  const off = Math.log(sound.normalisedS / windowMiddleS(recipe.timeS));
  return Math.abs(off) > middleThirdLn({ recipe }) ? Math.sign(off) : 0;
}

/** The side on which the last two at one mark agree; 0: they do not, or there are not two. */
export function agreedSide(input: Pick<AdviceCase, 'recipe'>, [last, before]: readonly Sound[]): number {
  const side = sideOf(input, last);
  return side === sideOf(input, before) && last?.shot.setting === before?.shot.setting ? side : 0;
}
