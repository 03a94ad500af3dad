import { gaussian, seededRandom, type Random } from '../numbers/index.ts';
import type { CupWord, Preference, TrialCup, TrialPair } from '../taste/index.ts';

/** Three kinds of palates: as much put off by sour as by bitter; by bitter three times as much; by strength before all else. */
export const palateKinds = ['even', 'mild', 'byStrength'] as const;
export type PalateKind = (typeof palateKinds)[number];

/** Somebody who tastes, and the coffee at its best for them. */
export interface Palate {
  kind: PalateKind;
  best: TrialCup;
  /** Extraction, %, and strength, % TDS, as this palate feels them off its best: leanings and scatter included. */
  feels(cup: TrialCup): { extraction: number; strength: number };
  /** Which of two is better, and what each is like. */
  tastes(left: TrialCup, right: TrialCup): TrialPair;
  word(cup: TrialCup): CupWord;
}

/** What a cup holds: extraction grows with water and time, slower and slower; strength is what is taken out over the water. */
function inTheCup({ ratio, timeS, doseG, tempC }: TrialCup): { extraction: number; strength: number } {
  const extraction =
    19.5 * (ratio / 2) ** 0.35 * (timeS / 27) ** 0.25 * (18 / doseG) ** 0.15 * Math.exp(0.01 * (tempC - 93));
  return { extraction, strength: extraction / ratio };
}

/** Scatter of a single mouthful, and the most that a palate leans: % extracted, % TDS. */
const SCATTER = { extraction: 0.45, strength: 0.35 };
const LEANING = { extraction: 0.3, strength: 0.2 };
/** From here a cup is called by a fault. */
const CALLED = { extraction: 0.6, strength: 0.5 };
/** One cup in so many is called sour for bitter, or the other way about. */
const MIXED_UP = 0.06;

/** A palate drawn by its seed, its best about the roaster's start: sd 0.3 in ratio, 4 s in time. */
export function drawPalate(kind: PalateKind, start: TrialCup, seed: number): Palate {
  const random = seededRandom(seed);
  const best = { ...start, ratio: start.ratio + 0.3 * gaussian(random), timeS: start.timeS + 4 * gaussian(random) };
  const at = inTheCup(best);
  const leans = { extraction: LEANING.extraction * gaussian(random), strength: LEANING.strength * gaussian(random) };
  const leansLeft = 0.15 * gaussian(random);
  const width = kind === 'byStrength' ? { extraction: 2, strength: 0.6 } : { extraction: 0.9, strength: 0.9 };
  const feels = (cup: TrialCup): { extraction: number; strength: number } => {
    const is = inTheCup(cup);
    return {
      extraction: is.extraction - at.extraction + SCATTER.extraction * gaussian(random),
      strength: is.strength - at.strength + SCATTER.strength * gaussian(random),
    };
  };
  const missed = ({ extraction, strength }: { extraction: number; strength: number }): number => {
    const steep = kind === 'mild' && extraction > 0 ? 3 : 1;
    return 0.5 * (steep * (extraction / width.extraction) ** 2 + (strength / width.strength) ** 2);
  };
  const wordOf = ({ extraction, strength }: { extraction: number; strength: number }): CupWord => ({
    sourBitter: sourBitterOf(extraction + leans.extraction, random),
    weakStrong: called(strength + leans.strength, CALLED.strength, 'weak', 'strong'),
  });
  return {
    kind,
    best,
    feels,
    word: (cup) => wordOf(feels(cup)),
    tastes: (left, right) => {
      const [l, r] = [feels(left), feels(right)];
      const better = preferenceOf(missed(r) - missed(l) + leansLeft);
      return { left, right, better, leftWord: wordOf(l), rightWord: wordOf(r) };
    },
  };
}

const called = <L extends string, H extends string>(off: number, from: number, low: L, high: H): L | 'right' | H =>
  off < -from ? low : off > from ? high : 'right';

function sourBitterOf(off: number, random: Random): CupWord['sourBitter'] {
  const word = called(off, CALLED.extraction, 'sour', 'bitter');
  if (word === 'right' || random() >= MIXED_UP) return word;
  return word === 'sour' ? 'bitter' : 'sour';
}

/** @param by how much the left one is better */
function preferenceOf(by: number): Preference {
  if (Math.abs(by) < 0.2) return 'same';
  if (by > 0) return by > 1 ? 'leftMuch' : 'left';
  return by < -1 ? 'rightMuch' : 'right';
}

/** Scatter of a cup as it runs about what was asked. */
const POURED_SD = { ratio: 0.04, timeS: 1 };

/** A cup as a bar pours it: near what was asked, and known as it was. */
export const poured = (asked: TrialCup, random: Random): TrialCup => ({
  ...asked,
  ratio: asked.ratio + POURED_SD.ratio * gaussian(random),
  timeS: asked.timeS + POURED_SD.timeS * gaussian(random),
});

/**
 * The habit: one cup after another, one lever at a time. Too strong or weak moves the yield; then sour or bitter moves the
 * time; a change that tastes worse is taken back, and the next is half as large. What it would write down after each cup.
 */
export function byOneLever(palate: Palate, start: TrialCup, cups: number, random: Random): TrialCup[] {
  const written: TrialCup[] = [];
  const step = { ratio: 0.2, timeS: 2 };
  let best = { asked: start, cup: start, word: palate.word(start) };
  let lever: keyof typeof step | null = null;
  for (let k = 0; k < cups; k += 1) {
    const asked: TrialCup =
      lever === null
        ? best.asked
        : { ...best.asked, [lever]: best.asked[lever] + wayOf(best.word, lever) * step[lever] };
    const cup = poured(asked, random);
    const isWorse = k > 0 && ['left', 'leftMuch'].includes(palate.tastes(best.cup, cup).better);
    if (!isWorse) best = { asked, cup, word: palate.word(cup) };
    else if (lever !== null) step[lever] /= 2;
    written.push(best.asked);
    lever = wayOf(best.word, 'ratio') !== 0 ? 'ratio' : wayOf(best.word, 'timeS') !== 0 ? 'timeS' : null;
  }
  return written;
}

/** Which way a lever goes for what a cup was called; 0: it is left. */
function wayOf({ sourBitter, weakStrong }: CupWord, lever: 'ratio' | 'timeS'): number {
  if (lever === 'ratio') return weakStrong === 'strong' ? 1 : weakStrong === 'weak' ? -1 : 0;
  return sourBitter === 'sour' ? 1 : sourBitter === 'bitter' ? -1 : 0;
}
