import { chanceBetween, Z_80 } from '../numbers/index.ts';
import type { AdviceCase } from './adviceCase.ts';
import { marksFiner, settingsAbout } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import { meanAt, sdAt, type ResponseLine } from './responseLine.ts';
import { lnOfTrim, trimDoses } from './trim.ts';
import { windowMiddleS } from './windowMiddle.ts';

/** What is expected of a setting and a dose. Seconds are the recipe's normalised shot time. */
export interface Expected {
  setting: number;
  /** Grams off the recipe's dose: 0 unless the dose is trimmed between two marks. */
  trimG: number;
  /** Median of the next shot. */
  timeS: number;
  /** 80 % band of the next shot: the doubt of the mean and the noise of a shot. */
  lowS: number;
  highS: number;
  /** Chance that the mean of shots at this setting lies inside the window. */
  inWindow: number;
  /** Sd of the mean's ln T. */
  sd: number;
}

/** A line with the dial that it is read on. */
export interface DialLine {
  line: ResponseLine;
  /** Dial number at x = 0. */
  reference: number;
}

type Station = Pick<AdviceCase, 'dial' | 'recipe' | 'house'>;

/** What the line expects of one setting with the dose trimmed by `trimG`. */
export function expectAt({ line, reference }: DialLine, input: Station, setting: number, trimG = 0): Expected {
  const x = marksFiner(input.dial, setting, reference);
  const lnDose = lnOfTrim(input.recipe, trimG);
  const mean = meanAt(line, x) + line.doseExponent * lnDose;
  const sd = Math.hypot(sdAt(line, x), Math.sqrt(line.doseExponentVariance) * lnDose);
  const reach = Z_80 * Math.sqrt(sd ** 2 + line.shotVariance);
  const { min, max } = input.recipe.timeS;
  return {
    setting,
    trimG,
    timeS: Math.exp(mean),
    lowS: Math.exp(mean - reach),
    highS: Math.exp(mean + reach),
    inWindow: chanceBetween(mean, sd, Math.log(min), Math.log(max)),
    sd,
  };
}

// Of equals the nearer setting and the smaller trim win: a farther one must be truly better.
const NEARLY_EQUAL = 1e-9;

/** Steps to either side of where the line meets the window's middle that may be the likeliest. */
const STEPS_ABOUT = 3;

/** The setting with the best chance at the recipe's dose; of equals, the nearest to `from`. */
export function bestSetting(dialLine: DialLine, input: Station, from: number): Expected {
  const { line, reference } = dialLine;
  const { dial, recipe } = input;
  const missing = Math.log(windowMiddleS(recipe.timeS)) - meanAt(line, marksFiner(dial, from, reference));
  let best = expectAt(dialLine, input, from);
  for (const setting of settingsAbout(dial, from, missing / line.response, STEPS_ABOUT)) {
    const candidate = expectAt(dialLine, input, setting);
    if (isBetter(candidate, best, input)) best = candidate;
  }
  return best;
}

/** Likelier to hold; where neither is likely at all, nearer to the window. */
function isBetter(candidate: Expected, best: Expected, { recipe }: Station): boolean {
  if (Math.max(candidate.inWindow, best.inWindow) >= engineDefaults.hopeless) {
    return candidate.inWindow > best.inWindow + NEARLY_EQUAL;
  }
  const middleS = windowMiddleS(recipe.timeS);
  const off = ({ timeS }: Expected): number => Math.abs(Math.log(timeS / middleS));
  return off(candidate) < off(best) - NEARLY_EQUAL;
}

/** The best that a trim of the dose makes of one setting; no trim unless it gains a margin and makes a likely setting of it. */
export function bestTrim(dialLine: DialLine, input: Station, setting: number): Expected {
  const plain = expectAt(dialLine, input, setting);
  let best = plain;
  for (const trimG of trimDoses(input, dialLine.line)) {
    const candidate = expectAt(dialLine, input, setting, trimG);
    if (candidate.inWindow > best.inWindow + NEARLY_EQUAL) best = candidate;
  }
  const { trimMargin, trimLeastChance } = engineDefaults;
  return best.inWindow > plain.inWindow + trimMargin && best.inWindow >= trimLeastChance ? best : plain;
}
