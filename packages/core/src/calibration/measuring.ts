import type { Measured } from '../facts/index.ts';
import { engineDefaults } from './engineDefaults.ts';

/**
 * Measured how (design 3.13): a dose struck level or a yield read off a glass says the same as a scale, with noise of its own.
 * Each way's variance of ln T has a default and is learned like a person's hands.
 */

/** A way that adds noise, by what it measures. */
export type WayName = `dose ${string}` | `yield ${string}`;

/** What shots by a way have said of it: how many, and the sum of their squared misses in ln T. */
interface WayHeard {
  readonly shots: number;
  readonly squaredMisses: number;
}

export type WaysHeard = Readonly<Partial<Record<WayName, WayHeard>>>;

/** d ln T / d ln yield of a shot whose first drop came when it usually does. */
const YIELD_SLOPE = (1 - engineDefaults.firstDropShare) * engineDefaults.yieldExponent;

interface Way {
  name: WayName;
  usualVariance: number;
}

function waysOf({ dose = 'scale', yield: byYield = 'scale' }: Measured): Way[] {
  const { doseWayLnSd, yieldWayLnSd, doseExponent } = engineDefaults;
  const ways: Way[] = [
    { name: `dose ${dose}`, usualVariance: (doseExponent * doseWayLnSd[dose]) ** 2 },
    { name: `yield ${byYield}`, usualVariance: (YIELD_SLOPE * yieldWayLnSd[byYield]) ** 2 },
  ];
  return ways.filter(({ usualVariance }) => usualVariance > 0);
}

/** Mean of an inverse gamma belief that begins with the default. */
function learnedVariance({ name, usualVariance }: Way, heard: WaysHeard): number {
  const { wayShots } = engineDefaults;
  const { shots, squaredMisses } = heard[name] ?? { shots: 0, squaredMisses: 0 };
  return (wayShots * usualVariance + squaredMisses) / (wayShots + shots);
}

/** Variance that the ways of a shot add to its ln T. @param heard what the house's own shots have said of them */
const variancesOfWays = (
  measured: Measured | undefined,
  heard: WaysHeard = {},
): { name: WayName; variance: number }[] =>
  measured === undefined
    ? []
    : waysOf(measured).map((way) => ({ name: way.name, variance: learnedVariance(way, heard) }));

/** The same in one number. */
export const varianceOfWays = (measured: Measured | undefined, heard: WaysHeard = {}): number =>
  variancesOfWays(measured, heard).reduce((sum, { variance }) => sum + variance, 0);

/** What is heard of the ways after one more shot by them. @param squaredMiss in ln T, all of it @param variance that the shot had in all */
export function waysAfter(
  heard: WaysHeard,
  measured: Measured | undefined,
  squaredMiss: number,
  variance: number,
): WaysHeard {
  let after = heard;
  for (const { name, variance: own } of variancesOfWays(measured, heard)) {
    const before = heard[name] ?? { shots: 0, squaredMisses: 0 };
    const misses = before.squaredMisses + (own / variance) * squaredMiss;
    after = { ...after, [name]: { shots: before.shots + 1, squaredMisses: misses } };
  }
  return after;
}

/** Grams within which a dose by this way is as good as asked for; 0 on the scale. */
export function doseDoubtG(doseG: number, measured: Measured | undefined): number {
  const { doseWayLnSd, doseOffSds } = engineDefaults;
  return doseOffSds * doseWayLnSd[measured?.dose ?? 'scale'] * doseG;
}

/** Whether the next dose can be weighed to a few tenths: by a scale or by time; all others are a touch more or less. */
export const isWeighable = (measured: Measured | undefined): boolean =>
  ['scale', 'beans', 'timed'].includes(measured?.dose ?? 'scale');
