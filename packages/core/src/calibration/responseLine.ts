import { DOSE, groupOf, levelOf, responseOf, shotVarianceOf, type BarModel } from './barModel.ts';
import type { Measured } from '../facts/index.ts';
import { covarianceOf, meanOf, type Row } from './belief.ts';
import { engineDefaults } from './engineDefaults.ts';
import { varianceOfWays } from './measuring.ts';

/**
 * What the bar model says of one grinder through one group, as a line over the dial: the mean ln T of shots x marks finer
 * than the reference, and the doubt about it. All that decisions need, in a handful of numbers.
 */
export interface ResponseLine {
  readonly level: number;
  readonly response: number;
  readonly levelVariance: number;
  readonly levelResponseCovariance: number;
  readonly responseVariance: number;
  /** Variance between shots of one setting, as they are measured. */
  readonly shotVariance: number;
  /** d ln T / d ln dose, and its variance. */
  readonly doseExponent: number;
  readonly doseExponentVariance: number;
}

/** The line of a grinder through a group, in somebody's hands; a response below its floor is lifted to it: finer is never faster. */
export function lineOf(
  bar: BarModel,
  { grinder, coffee }: { grinder: string; coffee: string | null },
  group: string | null,
  responseFloor: number,
  by: string | null = null,
  measured?: Measured,
): ResponseLine {
  const level: Row =
    group === null
      ? [[levelOf(grinder, coffee), 1]]
      : [
          [levelOf(grinder, coffee), 1],
          [groupOf(group), 1],
        ];
  const response: Row = [[responseOf(grinder), 1]];
  const dose: Row = [[DOSE, 1]];
  const { belief } = bar;
  return {
    level: meanOf(belief, level),
    response: Math.max(meanOf(belief, response), responseFloor),
    levelVariance: covarianceOf(belief, level, level),
    levelResponseCovariance: covarianceOf(belief, level, response),
    responseVariance: covarianceOf(belief, response, response),
    shotVariance: shotVarianceOf(bar, by) + varianceOfWays(measured, bar.ways),
    doseExponent: meanOf(belief, dose),
    doseExponentVariance: covarianceOf(belief, dose, dose),
  };
}

/** Mean ln T of shots at x. */
export function meanAt(line: ResponseLine, x: number): number {
  return line.level + line.response * x;
}

/** Covariance of the means at two marks. */
export function covarianceAt(line: ResponseLine, a: number, b: number): number {
  return line.levelVariance + line.levelResponseCovariance * (a + b) + line.responseVariance * a * b;
}

/** Doubt of the mean at x, one sd. */
export function sdAt(line: ResponseLine, x: number): number {
  return Math.sqrt(Math.max(0, covarianceAt(line, x, x)));
}

/** What one more shot at x would do to the line: how far means move for each sd of surprise, and what doubt is left. */
export interface ShotEffect {
  /** Sd of the shot's ln T as seen from now. */
  surpriseSd: number;
  /** The line after the shot fell `z` sd from what was expected. */
  after: (z: number) => ResponseLine;
}

/** The line after one more shot at x, before it is pulled (Kalman update of two unknowns). */
export function effectOfShot(line: ResponseLine, x: number, addedVariance = 0): ShotEffect {
  const level = line.levelVariance + line.levelResponseCovariance * x;
  const response = line.levelResponseCovariance + line.responseVariance * x;
  const variance = covarianceAt(line, x, x) + line.shotVariance + addedVariance;
  const surpriseSd = Math.sqrt(variance);
  return {
    surpriseSd,
    after: (z) => ({
      ...line,
      level: line.level + (level / surpriseSd) * z,
      response: Math.max(
        line.response + (response / surpriseSd) * z,
        engineDefaults.responseFloorShare * line.response,
      ),
      levelVariance: line.levelVariance - level ** 2 / variance,
      levelResponseCovariance: line.levelResponseCovariance - (level * response) / variance,
      responseVariance: line.responseVariance - response ** 2 / variance,
    }),
  };
}
