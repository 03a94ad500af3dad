import type { TrialCupNumbers } from '../facts/index.ts';
import { gaussian, normalCdf, seededRandom, type Random } from '../numbers/index.ts';

/** What a trial may vary; ratio is yield over dose. */
export const trialAxes = ['ratio', 'timeS', 'doseG', 'tempC'] as const;
export type TrialAxis = (typeof trialAxes)[number];

/** A cup by its numbers: as it was meant or, better, as it was poured. */
export type TrialCup = Readonly<TrialCupNumbers>;

export const preferences = ['leftMuch', 'left', 'same', 'right', 'rightMuch'] as const;
export type Preference = (typeof preferences)[number];
export const sourBitterWords = ['sour', 'right', 'bitter'] as const;
export const weakStrongWords = ['weak', 'right', 'strong'] as const;

/** What somebody said of one cup; null where nothing was said. */
export interface CupWord {
  sourBitter: (typeof sourBitterWords)[number] | null;
  weakStrong: (typeof weakStrongWords)[number] | null;
}

/** Two cups side by side, and what they tasted like. */
export interface TrialPair {
  left: TrialCup;
  right: TrialCup;
  better: Preference;
  leftWord: CupWord;
  rightWord: CupWord;
}

/** How far from the roaster's start the best of a coffee lies for a house, one sd. */
export const axisSd: TrialCup = { ratio: 0.3, timeS: 4, doseG: 0.7, tempC: 1.2 };

/**
 * How a step of one sd on an axis tastes, in sd of a palate: towards bitter (more is taken out of the bed) and towards
 * strong (more of it in less water). What the trade holds: a longer cup takes out more and is thinner; a slower one takes out
 * more and is stronger; more coffee is stronger and takes out less; heat takes out more.
 */
const towardsBitter: TrialCup = { ratio: 0.7, timeS: 0.7, doseG: -0.4, tempC: 0.7 };
const towardsStrong: TrialCup = { ratio: -0.9, timeS: 0.5, doseG: 0.7, tempC: 0.1 };
/** Nobody knows these to better than this. */
const LOADING_SD = 0.2;
/** How much a step of one sd is missed on an axis that no word of taste reaches. */
const LOOSE = 0.25;
/** Width of a palate, in the same units: ln sd about one. */
const WIDTH_LN_SD = 0.35;
/** A taster's own leaning to call a cup sour or bitter, weak or strong; and towards the cup on the left. */
const LEANING_SD = 0.35;
const SIDE_SD = 0.15;
/** Scatter of a single word, and of a preference. */
const WORD_SD = 0.6;
const PREFERENCE_SD = 0.7;
/** From here a cup is called sour or bitter; a preference is felt; it is clear. */
const WORD_FROM = 0.6;
const FELT_FROM = 0.2;
const CLEAR_FROM = 1;
/** Hypotheses that are weighed. */
const HYPOTHESES = 6_000;

/** One way that the coffee and the palate may be. */
export interface Hypothesis {
  /** Where the best cup lies, sds of the axes in use from the start. */
  best: readonly number[];
  bitter: readonly number[];
  strong: readonly number[];
  bitterWidth: number;
  strongWidth: number;
  leansBitter: number;
  leansStrong: number;
  leansLeft: number;
}

/** Every way it may be, with the weight that what was tasted gives it; weights sum to 1. */
export interface Belief {
  axes: readonly TrialAxis[];
  start: TrialCup;
  hypotheses: readonly Hypothesis[];
  weights: Float64Array;
}

/** What is believed before anybody tasted: the best lies about the roaster's start. The same seed gives the same. */
export function beliefAbout(start: TrialCup, axes: readonly TrialAxis[], seed = 1): Belief {
  const random = seededRandom(seed);
  const hypotheses = Array.from({ length: HYPOTHESES }, () => drawn(axes, random));
  return { axes, start, hypotheses, weights: new Float64Array(HYPOTHESES).fill(1 / HYPOTHESES) };
}

function drawn(axes: readonly TrialAxis[], random: Random): Hypothesis {
  const about = (centre: number, sd: number): number => centre + sd * gaussian(random);
  return {
    best: axes.map(() => gaussian(random)),
    bitter: axes.map((axis) => about(towardsBitter[axis], LOADING_SD)),
    strong: axes.map((axis) => about(towardsStrong[axis], LOADING_SD)),
    bitterWidth: Math.exp(about(0, WIDTH_LN_SD)),
    strongWidth: Math.exp(about(0, WIDTH_LN_SD)),
    leansBitter: about(0, LEANING_SD),
    leansStrong: about(0, LEANING_SD),
    leansLeft: about(0, SIDE_SD),
  };
}

/** The axes in use, in sds from the start. */
export const offsetsOf = ({ axes, start }: Pick<Belief, 'axes' | 'start'>, cup: TrialCup): number[] =>
  axes.map((axis) => (cup[axis] - start[axis]) / axisSd[axis]);

/** How a cup lies from the best one: towards bitter, towards strong, and by how much it is missed (0: the best there is). */
function tasteOf(h: Hypothesis, at: readonly number[]): { bitter: number; strong: number; missed: number } {
  let [bitter, strong, loose] = [0, 0, 0];
  for (const [i, best] of h.best.entries()) {
    const off = (at[i] ?? 0) - best;
    bitter += (h.bitter[i] ?? 0) * off;
    strong += (h.strong[i] ?? 0) * off;
    loose += off * off;
  }
  bitter /= h.bitterWidth;
  strong /= h.strongWidth;
  return { bitter, strong, missed: 0.5 * (bitter ** 2 + strong ** 2 + LOOSE ** 2 * loose) };
}

/** Chances of each answer of an ordered probit: the latent value is `mean` with scatter `sd`, cut at the given points. */
function ordered(mean: number, sd: number, cuts: readonly number[]): number[] {
  const below = cuts.map((cut) => normalCdf((cut - mean) / sd));
  return [...below, 1].map((upTo, i) => Math.max(1e-6, upTo - (i === 0 ? 0 : (below[i - 1] ?? 0))));
}

const PREFERENCE_CUTS = [-CLEAR_FROM, -FELT_FROM, FELT_FROM, CLEAR_FROM];
const WORD_CUTS = [-WORD_FROM, WORD_FROM];

/** A cup as a hypothesis has it taste: how far from the best, and the chances of each word on it, sour to bitter and weak to strong. */
export interface TastedCup {
  missed: number;
  words: readonly (readonly number[])[];
}

/** @param at the cup, sds from the start */
export function cupUnder(h: Hypothesis, at: readonly number[]): TastedCup {
  const { bitter, strong, missed } = tasteOf(h, at);
  return {
    missed,
    words: [ordered(bitter + h.leansBitter, WORD_SD, WORD_CUTS), ordered(strong + h.leansStrong, WORD_SD, WORD_CUTS)],
  };
}

/** Chances of each preference between two cups, in the order of `preferences`. */
export const preferenceUnder = (h: Hypothesis, left: TastedCup, right: TastedCup): readonly number[] =>
  ordered(left.missed - right.missed - h.leansLeft, PREFERENCE_SD, PREFERENCE_CUTS);

/** The belief after a pair was tasted (Bayes' rule); what nobody said weighs nothing. */
export function afterPair(belief: Belief, pair: TrialPair): Belief {
  const [left, right] = [offsetsOf(belief, pair.left), offsetsOf(belief, pair.right)];
  const better = preferences.indexOf(pair.better);
  const wordsOf = ({ sourBitter, weakStrong }: CupWord): (number | null)[] => [
    sourBitter === null ? null : sourBitterWords.indexOf(sourBitter),
    weakStrong === null ? null : weakStrongWords.indexOf(weakStrong),
  ];
  const chanceOf = (cup: TastedCup, said: readonly (number | null)[]): number =>
    said.reduce<number>((product, word, k) => (word === null ? product : product * (cup.words[k]?.[word] ?? 0)), 1);
  const [leftSaid, rightSaid] = [wordsOf(pair.leftWord), wordsOf(pair.rightWord)];
  const weights = belief.weights.map((weight, i) => {
    const h = belief.hypotheses[i];
    if (h === undefined) return 0;
    const [l, r] = [cupUnder(h, left), cupUnder(h, right)];
    return weight * (preferenceUnder(h, l, r)[better] ?? 0) * chanceOf(l, leftSaid) * chanceOf(r, rightSaid);
  });
  return { ...belief, weights: normalised(weights) };
}

function normalised(weights: Float64Array): Float64Array {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return weights.map((weight) => weight / total);
}

/** Where the best cup is believed to lie, and its doubt (one sd), per axis; axes out of use stay at the start. */
export function bestCup(belief: Belief): { cup: TrialCup; sd: TrialCup } {
  const cup: Record<TrialAxis, number> = { ...belief.start };
  const sd: Record<TrialAxis, number> = { ratio: 0, timeS: 0, doseG: 0, tempC: 0 };
  for (const [k, axis] of belief.axes.entries()) {
    let [mean, square] = [0, 0];
    for (const [i, { best }] of belief.hypotheses.entries()) {
      const weight = belief.weights[i] ?? 0;
      mean += weight * (best[k] ?? 0);
      square += weight * (best[k] ?? 0) ** 2;
    }
    cup[axis] = belief.start[axis] + axisSd[axis] * mean;
    sd[axis] = axisSd[axis] * Math.sqrt(Math.max(0, square - mean ** 2));
  }
  return { cup, sd };
}
