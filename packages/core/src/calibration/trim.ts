import type { AdviceCase } from './adviceCase.ts';
import { aimFrom, middleThirdLn, offMiddle } from './aim.ts';
import { fitsBasket } from './basket.ts';
import type { CaseFit } from './caseFit.ts';
import { engineDefaults } from './engineDefaults.ts';
import { lnOfTrim } from './lnOfTrim.ts';
import { isWeighable } from './measuring.ts';
import { expectAt, type DialLine } from './move.ts';
import { soundShotsAt } from './poured.ts';
import type { ResponseLine } from './responseLine.ts';
import { windowMiddleS } from './windowMiddle.ts';

/**
 * Between two marks of a stepped grinder the dose takes up the rest (handbook: 0.2-0.4 g). It costs no purge.
 * @returns the grams off the recipe's dose that may be tried, smallest first; none where the collar itself is fine enough
 *   or the house does not trim by the dose.
 */
export function trimDoses(input: Trimmed, line: ResponseLine): readonly number[] {
  return input.house.trim === 'dose' && isCoarse(input, line) ? weighableTrims(input) : [];
}

/** Grams off the recipe's dose that fit its basket, smallest first; none to a hand that levels or looks: tenths are nothing to it. */
export function weighableTrims(input: Trimmed): readonly number[] {
  if (!isWeighable(measuredIn(input))) return [];
  const { doseG, basketG } = input.recipe;
  return engineDefaults.trimsG
    .flatMap((grams) => [grams, -grams])
    .filter((grams) => fitsBasket(doseG + grams, basketG));
}

type Trimmed = Pick<AdviceCase, 'dial' | 'recipe' | 'house'> & Partial<Pick<AdviceCase, 'shots' | 'measured'>>;

/** How the next shot will be measured, as far as anybody can tell: as the last one was. */
const measuredIn = ({ shots = [], measured }: Trimmed): AdviceCase['measured'] =>
  shots.length > 0 ? shots.at(-1)?.measured : measured;

/** Sound shots before a trim is spoken of. */
const SHOTS_BEFORE_TRIM = 2;
/** A mean that lies off by less than so many of its own sds may lie in the middle: noise is not trimmed. */
const TRIM_SDS = 1.28;

/**
 * The trim that is offered at a setting, grams off the recipe's dose; 0: none. Only where the house trims by the dose, no mark's
 * prediction lies in the middle third of the window, two sound shots were pulled there, and it is more than noise.
 */
export function offeredTrim(input: AdviceCase, fit: DialLine & Pick<CaseFit, 'heard'>, setting: number): number {
  const small = smallMissTrim(input, fit, setting);
  if (small !== 0) return small;
  const grams = trimDoses(input, fit.line);
  if (grams.length === 0 || soundShotsAt(input, fit, setting).length < SHOTS_BEFORE_TRIM) return 0;
  const { target } = aimFrom(fit, input, setting);
  if (target.setting !== setting) return 0;
  const plain = expectAt(fit, input, setting);
  const off = offMiddle(plain, input);
  if (off <= middleThirdLn(input) || off <= TRIM_SDS * plain.sd) return 0;
  const best = grams
    .map((trimG) => expectAt(fit, input, setting, trimG))
    .reduce((least, one) => (offMiddle(one, input) < offMiddle(least, input) ? one : least), plain);
  return best.inWindow > plain.inWindow + engineDefaults.trimMargin ? best.trimG : 0;
}

/** What a house that answers a small miss with the dose takes up of it, once; then the collar does. */
function smallMissTrim(input: AdviceCase, fit: DialLine & Pick<CaseFit, 'heard'>, setting: number): number {
  if (input.house.smallMiss !== 'dose') return 0;
  const [first, ...more] = soundShotsAt(input, fit, setting).toReversed();
  const again = more.some(({ missS }) => missS !== 0);
  if (!first || again || first.missS === 0 || Math.abs(first.missS) > engineDefaults.smallMissS) return 0;
  const plain = expectAt(fit, input, setting);
  return weighableTrims(input)
    .filter((grams) => grams > 0 === first.missS < 0)
    .map((trimG) => expectAt(fit, input, setting, trimG))
    .reduce((least, one) => (offMiddle(one, input) < offMiddle(least, input) ? one : least), plain).trimG;
}

const TENTHS = 10;

/**
 * What a house that trims by the yield or by the tamp does between two marks, in words for a person: the engine's own
 * choice of mark stays as it is, since neither is the grinder's.
 * @param expectedS the time that the mark is expected to give
 * @returns null where the collar is fine enough, or the mark is near the middle already
 */
export function trimByHand(input: Trimmed, line: ResponseLine, expectedS: number): HandTrim | null {
  const { trim } = input.house;
  const byFeel = trim === 'dose' && !isWeighable(measuredIn(input));
  if ((trim !== 'yield' && trim !== 'tamp' && !byFeel) || !isCoarse(input, line)) return null;
  const middleS = windowMiddleS(input.recipe.timeS);
  const off = Math.log(middleS / expectedS);
  if (Math.abs(off) < TRIM_WORTH_SHARE * input.dial.stepMarks * line.response) return null;
  if (trim === 'tamp') return { by: 'tamp', offS: middleS - expectedS };
  if (byFeel) return { by: 'dose', more: off > 0 };
  const toG = input.recipe.yieldG * Math.exp(off / engineDefaults.yieldExponent);
  return { by: 'yield', toG: Math.round(toG * TENTHS) / TENTHS };
}
/** What a person does about a mark that lies between: stop for so many grams, tamp for so many seconds, a touch more or less coffee. */
type HandTrim = { by: 'yield'; toG: number } | { by: 'tamp'; offS: number } | { by: 'dose'; more: boolean };

/** Nearer to the middle than a quarter of a step, nobody trims. */
const TRIM_WORTH_SHARE = 0.25;

/** Farthest that a trim may move ln T, either way. */
export function trimReach(input: Trimmed, line: ResponseLine): number {
  const most = Math.max(0, ...trimDoses(input, line));
  return line.doseExponent * lnOfTrim(input.recipe, most);
}

/** Whether one step of the collar is a large part of the window. */
function isCoarse({ dial, recipe }: Pick<AdviceCase, 'dial' | 'recipe'>, line: ResponseLine): boolean {
  const window = Math.log(recipe.timeS.max / recipe.timeS.min);
  return dial.stepMarks * line.response > engineDefaults.coarseStepShare * window;
}
