import { chanceBetween, Z_80 } from '../numbers/index.ts';
import type { AdviceCase } from './adviceCase.ts';
import { marksFiner } from './dial.ts';
import { meanAt, sdAt, type ResponseLine } from './responseLine.ts';
import { lnOfTrim } from './lnOfTrim.ts';

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
