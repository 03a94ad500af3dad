import { normalisedTime } from '../calibration/index.ts';
import { seededRandom, type Random } from '../numbers/index.ts';
import {
  afterPair,
  axisSd,
  beliefAbout,
  bestCup,
  cupUnder,
  offsetsOf,
  preferenceUnder,
  type Belief,
  type Hypothesis,
  type TastedCup,
  type TrialAxis,
  type TrialCup,
  type TrialPair,
} from './trialModel.ts';

/** Two cups to pull and taste side by side. */
export interface NextPair {
  left: TrialCup;
  right: TrialCup;
  /** What they take, with the purge where the collar moves, g. */
  grams: number;
  /** What their answers are expected to say, bits. */
  bits: number;
}

/** Where a trial stands. */
export interface TrialState {
  cups: number;
  best: { cup: TrialCup; sd: TrialCup };
  /** The pair that says most for its grams; null: the trial is over. */
  next: NextPair | null;
  /** Why it is over: all cups are drunk, or another pair would change nothing that is written; null while it goes on. */
  over: 'allCups' | 'nothingToGain' | null;
}

/** How a trial is laid out. */
export interface TrialPlan {
  start: TrialCup;
  axes: readonly TrialAxis[];
  /** What a move of the collar throws away, g. */
  purgeG: number;
}

export const MOST_CUPS = 8;
/** A recipe is written, and a shot is hit, to about this: cups differ by such steps. */
export const axisStep: TrialCup = { ratio: 0.1, timeS: 1, doseG: 0.2, tempC: 0.5 };
/** Cups whose times, at one dose and yield, differ by less are pulled at one mark. */
const SAME_MARK_S = 0.5;
const TIME_READ_TO_S = 0.5;
/** A coffee is tried within these of the start, in sds: beyond lies another drink. */
const FARTHEST_SD = 1.7;
/** Places where the best may lie, and cups beside each from the same mark. */
const PLACES = 10;
const BESIDE = 2;
const HYPOTHESES_WEIGHED = 240;
/** A recipe would be written the same where it would move by less than this share of a step. */
const SAME_SHARE = 0.5;
const LEAST_CUPS = 4;

/** Where a trial stands after the pairs that were tasted; the same pairs say the same. */
export function trialState({ start, axes, purgeG }: TrialPlan, pairs: readonly TrialPair[]): TrialState {
  const belief = pairs.reduce(afterPair, beliefAbout(start, axes));
  const cups = 2 * pairs.length;
  const best = bestCup(belief);
  if (cups >= MOST_CUPS) return { cups, best, next: null, over: 'allCups' };
  const random = seededRandom(cups + 1);
  const few = resampled(belief, HYPOTHESES_WEIGHED, random);
  const last = pairs.at(-1)?.right;
  const standsS = last ? grindS(last, start) : null;
  const telling = mostTelling(belief, few, purgeG, standsS, random);
  if (telling === null || (cups >= LEAST_CUPS && !wouldMove(belief, few, telling.questions)))
    return { cups, best, next: null, over: 'nothingToGain' };
  return { cups, best, next: telling.pair, over: null };
}

/** Hypotheses drawn by their weight (systematic resampling; Kitagawa 1996). */
function resampled({ hypotheses, weights }: Belief, count: number, random: Random): Hypothesis[] {
  const drawn: Hypothesis[] = [];
  let upTo = 0;
  let at = random() / count;
  for (const [i, h] of hypotheses.entries()) {
    upTo += weights[i] ?? 0;
    for (; at < upTo && drawn.length < count; at += 1 / count) drawn.push(h);
  }
  return drawn;
}

/** A cup that may be poured, as every hypothesis that is weighed has it taste. */
interface Candidate {
  cup: TrialCup;
  under: readonly TastedCup[];
  grindS: number;
}

/** What a cup's grind would take at the start's dose and yield: the same mark, the same seconds. */
const grindS = ({ doseG, ratio, timeS }: TrialCup, start: TrialCup): number =>
  normalisedTime(
    { doseG, yieldG: doseG * ratio, timeS, firstDropS: null },
    { doseG: start.doseG, yieldG: start.doseG * start.ratio },
  ).normalisedS;

/** The cup as it runs at another's mark: `grindS` is proportional to the time. */
function atMarkOf(cup: TrialCup, { timeS, ...other }: TrialCup, start: TrialCup): TrialCup {
  const seconds = (timeS * grindS(cup, start)) / grindS({ timeS, ...other }, start);
  return { ...other, timeS: Math.round(seconds / TIME_READ_TO_S) * TIME_READ_TO_S };
}

/** Cups about where the best may lie, each with others from its mark: those cost no purge between them. */
function candidates(belief: Belief, few: readonly Hypothesis[], random: Random): Candidate[] {
  const anyCup = (): TrialCup => cupNear(belief, few[Math.floor(random() * few.length)]?.best ?? [], random);
  return Array.from({ length: PLACES }, anyCup)
    .flatMap((cup) => [cup, ...Array.from({ length: BESIDE }, () => atMarkOf(cup, anyCup(), belief.start))])
    .map((cup) => {
      const at = offsetsOf(belief, cup);
      return { cup, under: few.map((h) => cupUnder(h, at)), grindS: grindS(cup, belief.start) };
    });
}

/** What a pair says: chances of each answer, by question, under every hypothesis. */
const questionsOf = (few: readonly Hypothesis[], left: Candidate, right: Candidate): (readonly number[])[][] => [
  few.map((h, i) => preferenceUnder(h, left.under[i] as TastedCup, right.under[i] as TastedCup)),
  ...[left, right].flatMap(({ under }) => [0, 1].map((k) => under.map(({ words }) => words[k] ?? []))),
];

/**
 * The pair whose answers are expected to say most of where the best lies, per gram: the mutual information of each answer and
 * the hypothesis (Lindley 1956; MacKay 1992), summed over the answers.
 */
function mostTelling(
  belief: Belief,
  few: readonly Hypothesis[],
  purgeG: number,
  standsS: number | null,
  random: Random,
): { pair: NextPair; questions: (readonly number[])[][] } | null {
  const cups = candidates(belief, few, random).map((one) => ({
    ...one,
    bits: [0, 1].reduce((sum, k) => sum + mutualInformation(one.under.map(({ words }) => words[k] ?? [])), 0),
  }));
  let found: { pair: NextPair; left: Candidate; right: Candidate } | null = null;
  for (const [i, left] of cups.entries()) {
    for (const right of cups.slice(i + 1)) {
      const [preference] = questionsOf(few, left, right);
      const bits = left.bits + right.bits + mutualInformation(preference ?? []);
      const moves = [left.grindS - (standsS ?? left.grindS), right.grindS - left.grindS];
      const purges = moves.filter((move) => Math.abs(move) >= SAME_MARK_S).length;
      const grams = left.cup.doseG + right.cup.doseG + purges * purgeG;
      if (found === null || bits / grams > found.pair.bits / found.pair.grams) {
        found = { pair: { left: left.cup, right: right.cup, grams, bits }, left, right };
      }
    }
  }
  return found && { pair: found.pair, questions: questionsOf(few, found.left, found.right) };
}

/** A cup about a place where the best may lie, by steps that a bar can hit. */
function cupNear({ axes, start }: Belief, best: readonly number[], random: Random): TrialCup {
  const cup: Record<TrialAxis, number> = { ...start };
  for (const [i, axis] of axes.entries()) {
    const spread = 2 * random() - 1;
    const off = Math.max(-FARTHEST_SD, Math.min(FARTHEST_SD, (best[i] ?? 0) + spread));
    const steps = Math.round((off * axisSd[axis]) / axisStep[axis]);
    cup[axis] = Number((start[axis] + steps * axisStep[axis]).toFixed(2));
  }
  return cup;
}

const entropy = (chances: readonly number[]): number =>
  chances.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);

/** Entropy of the mean answer less the mean entropy of the answer, bits. */
function mutualInformation(chances: readonly (readonly number[])[]): number {
  const answers = chances[0]?.length ?? 0;
  const mean = Array.from(
    { length: answers },
    (_, answer) => chances.reduce((sum, row) => sum + (row[answer] ?? 0), 0) / chances.length,
  );
  return entropy(mean) - chances.reduce((sum, row) => sum + entropy(row), 0) / chances.length;
}

/**
 * Whether an answer is expected to move the recipe by more than half a step on any axis (root mean square over what may be
 * said): else it would be written the same.
 */
function wouldMove({ axes }: Belief, few: readonly Hypothesis[], questions: readonly (readonly number[])[][]): boolean {
  return axes.some((axis, k) => {
    const now = few.reduce((sum, { best }) => sum + (best[k] ?? 0), 0) / few.length;
    return questions.some((chances) => {
      const answers = chances[0]?.length ?? 0;
      const meanSquare = Array.from({ length: answers }, (_, answer) => {
        const chance = chances.reduce((sum, row) => sum + (row[answer] ?? 0), 0);
        const then = few.reduce((sum, { best }, i) => sum + (chances[i]?.[answer] ?? 0) * (best[k] ?? 0), 0) / chance;
        return (chance / few.length) * (then - now) ** 2;
      }).reduce((sum, part) => sum + part, 0);
      return Math.sqrt(meanSquare) * axisSd[axis] > SAME_SHARE * axisStep[axis];
    });
  });
}
