import type { AdviceCase } from './adviceCase.ts';
import { cleanSetting, mostStepsOf, settingAt, marksFiner } from './dial.ts';
import { expectAt, type DialLine, type Expected } from './move.ts';
import { meanAt } from './responseLine.ts';
import { windowMiddleS } from './windowMiddle.ts';

type Station = Pick<AdviceCase, 'dial' | 'recipe' | 'house'>;

/** The mark to aim at, and whether the dial ends before one that would do. */
export interface Aim {
  target: Expected;
  endOfDial: boolean;
}

/** How far a prediction lies from the window's middle, in ln T. */
export const offMiddle = ({ timeS }: Pick<Expected, 'timeS'>, { recipe }: Pick<Station, 'recipe'>): number =>
  Math.abs(Math.log(timeS / windowMiddleS(recipe.timeS)));

/** Whether a setting is predicted to lie in the window. */
export const isPredictedIn = ({ timeS }: Pick<Expected, 'timeS'>, { recipe }: Pick<Station, 'recipe'>): boolean =>
  timeS >= recipe.timeS.min && timeS <= recipe.timeS.max;

const MIDDLE_THIRD = 1 / 3;

/** From the middle of the window to the end of its middle third, ln T: within it nothing is trimmed, and no mark is called in between. */
export const middleThirdLn = ({ recipe: { timeS } }: Pick<Station, 'recipe'>): number =>
  (MIDDLE_THIRD * Math.log(timeS.max / timeS.min)) / 2;

/** Nearer to the middle by less than this, in ln T, is not nearer: half a second. */
const NEARER = 0.02;

/**
 * Where the collar should stand: of the marks in reach (the dial, and how far the house turns at once) the one whose
 * prediction lies nearest the window's middle, geometric in ln T: so never one that is predicted outside while another in reach
 * is predicted inside.
 */
export function aimFrom(dialLine: DialLine, input: Station, from: number): Aim {
  const { dial, recipe } = input;
  const { line, reference } = dialLine;
  const missing = Math.log(windowMiddleS(recipe.timeS)) - meanAt(line, marksFiner(dial, from, reference));
  const wanted = missing / line.response / dial.stepMarks;
  const most = mostStepsOf(dial);
  const centre = Math.min(most, Math.max(-most, Math.round(wanted)));
  const ends = dial.range ?? { min: -Infinity, max: Infinity };
  const inReach = [centre - 1, centre, centre + 1]
    .filter((steps) => Math.abs(steps) <= most)
    .map((steps) => settingAt(dial, steps * dial.stepMarks, from))
    .map((setting) => cleanSetting(Math.min(ends.max, Math.max(ends.min, setting))));
  const expected = [...new Set([...inReach, from])].map((setting) => expectAt(dialLine, input, setting));
  const nearestOf = expected.reduce((best, one) => (offMiddle(one, input) < offMiddle(best, input) ? one : best));
  const here = expectAt(dialLine, input, from);
  // Between two marks that both miss, a little nearer is no reason to go to and fro.
  const noNearer = !isPredictedIn(nearestOf, input) && offMiddle(here, input) < offMiddle(nearestOf, input) + NEARER;
  const nearest = noNearer ? here : nearestOf;
  const wantedSetting = settingAt(dial, Math.round(wanted) * dial.stepMarks, from);
  return {
    target: nearest,
    endOfDial: !isPredictedIn(nearest, input) && (wantedSetting < ends.min || wantedSetting > ends.max),
  };
}
