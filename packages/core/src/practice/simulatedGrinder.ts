import { gaussian, seededRandom, seedFrom, type Random } from '../numbers/index.ts';

/** What is true of a simulated grinder, and hidden from the engine. */
export interface GrinderTruth {
  /** Marks finer than the seed setting at which the recipe's shot takes the middle of its window, on a calm day. */
  idealX: number;
  /** ln of particle size lost per mark finer. */
  sizePerMark: number;
  /** Response grows or shrinks along the dial by this much per mark. */
  curvature: number;
  retentionG: number;
  rateGps: number;
  rateLossPerMark: number;
  lagS: number;
  doseSdG: number;
}

/** Resistance of a bed goes with the inverse square of particle size (Kozeny-Carman), so a mark shows twice in ln T. */
const SIZE_TO_TIME = 2;

/**
 * Truth of the grinder with this seed, around what its house believes it to be.
 * @param believed seconds-per-mark over the recipe's time, i.e. ln T per mark
 */
export function grinderTruth(seed: string, believed: { responsePerMark: number; rateGps: number }): GrinderTruth {
  const random = seededRandom(seedFrom(`grinder ${seed}`));
  const response = believed.responsePerMark * Math.exp(0.2 * gaussian(random));
  return {
    idealX: Math.round(gaussian(random) * 10) / 10,
    sizePerMark: response / SIZE_TO_TIME,
    curvature: 0.03 * gaussian(random),
    retentionG: 2 + 6 * random(),
    rateGps: believed.rateGps,
    rateLossPerMark: 0.01 + 0.02 * random(),
    lagS: 0.3,
    doseSdG: 0.1,
  };
}

/** The response never turns round along the dial, however it curves. */
const LEAST_SLOPE = 0.3;

/** ln of bed resistance relative to the ideal setting on a calm day; rises with x throughout. */
export function lnResistance(truth: Pick<GrinderTruth, 'idealX' | 'sizePerMark' | 'curvature'>, x: number): number {
  const marks = x - truth.idealX;
  const bend = Math.max(LEAST_SLOPE, 1 + truth.curvature * marks);
  return SIZE_TO_TIME * truth.sizePerMark * marks * bend;
}

/** Grams that come out of a timed grind. */
export function groundG(truth: GrinderTruth, grindTimeS: number, x: number, random: Random): number {
  const grams = truth.rateGps * Math.max(0, grindTimeS - truth.lagS) * Math.exp(-truth.rateLossPerMark * x);
  return Math.max(0, grams + truth.doseSdG * gaussian(random));
}
