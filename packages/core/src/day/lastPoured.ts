import {
  atDoseS,
  engineDefaults,
  middleThirdLn,
  missOf,
  windowMiddleS,
  type AdviceCase,
  type CaseFit,
} from '../calibration/index.ts';
import { MS_PER_MINUTE } from '../numbers/index.ts';
import { dayNumbers } from './dayNumbers.ts';
import { expectedOf, type Day, type Place } from './outlook.ts';
import { agreedSide, soundOf, type Sound } from './sound.ts';

/** Whether something is older than that; what nobody timed is not. */
export const isOlder = ({ nowMs }: AdviceCase, atMs: number | null, ms: number): boolean =>
  atMs !== null && nowMs !== null && nowMs - atMs >= ms;

/** So long a shot speaks for the cups that are poured; later the grinder may stand elsewhere. */
const SPEAKS_MS = 2 * dayNumbers.doubtedCheckMin * MS_PER_MINUTE;

/**
 * Whether a place would make shots slower after one that ran slower than the middle of the window, or after two that ran no faster than
 * its middle third; and the other way round: whatever was seen before, nobody turns or weighs that way before the next one,
 * unless the hour to come takes it across the middle by itself. An older shot forbids only what would take it farther out.
 */
export function isAgainstLast(day: Day, fit: CaseFit, place: Place, stands: Place): boolean {
  const { input } = day;
  const [last, before] = soundOf(input, fit);
  if (!last) return false;
  const poured: Place = { setting: last.shot.setting, trimG: stands.trimG };
  const pouredS = expectedOf(day, poured).timeS;
  const slower = Math.sign(expectedOf(day, place).timeS - pouredS);
  if (slower === 0) return false;
  const { timeS } = input.recipe;
  const comesLn = Math.log(expectedOf(day, poured, 1).timeS / pouredS);
  const slowerThanMiddle = ({ normalisedS }: Sound): number => {
    const off = Math.log(atDoseS(normalisedS, input, fit, stands.trimG) / windowMiddleS(timeS));
    return Math.min(slower * off, slower * (off + comesLn));
  };
  if (isOlder(input, last.shot.atMs, SPEAKS_MS)) return slowerThanMiddle(last) > Math.log(timeS.max / timeS.min) / 2;
  if (slowerThanMiddle(last) > 0) return true;
  const pair = before?.shot.setting === last.shot.setting ? [last, before] : [];
  return pair.length === 2 && pair.every((sound) => slowerThanMiddle(sound) > -middleThirdLn(input));
}

/** Seconds by which the last shot lay outside; 0 where it lay inside, or says nothing. */
function lastMissS({ shots, recipe }: AdviceCase, { heard }: CaseFit): number {
  const normalisedS = shots.at(-1)?.fault === null ? heard.at(-1)?.normalisedS : null;
  return normalisedS == null ? 0 : missOf(normalisedS, recipe.timeS);
}

/** A sound shot of a moment ago that lay outside, where nothing is turned for it: the next one says whether it was that cup. */
export function doubtedShot(
  input: AdviceCase,
  fit: CaseFit,
  { setting }: Place,
): { timeS: number; checkMin: number } | null {
  const last = input.shots.at(-1);
  const missS = lastMissS(input, fit);
  const { doubtedCheckMin, soonestCheckMin } = dayNumbers;
  if (!last || missS === 0 || last.setting !== setting || isOlder(input, last.atMs, SPEAKS_MS)) return null;
  const isFar = Math.abs(missS) > engineDefaults.smallMissS;
  return { timeS: last.timeS, checkMin: isFar ? soonestCheckMin : doubtedCheckMin };
}

/**
 * Whether the last two sound shots at the mark lie on one side, off the middle third: what a single one says of the rest between two
 * marks is noise.
 */
export const doTwoAgree = (input: AdviceCase, fit: CaseFit): boolean => agreedSide(input, soundOf(input, fit)) !== 0;

/** Whether the last two sound shots lie outside on one side. */
export function doTwoMiss(input: AdviceCase, fit: CaseFit): boolean {
  const [last = 0, before = 0] = soundOf(input, fit).map(({ normalisedS }) =>
    Math.sign(missOf(normalisedS, input.recipe.timeS)),
  );
  return last !== 0 && last === before;
}
