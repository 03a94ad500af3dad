import { mean } from '../numbers/index.ts';
import { cleanTrace } from './cleanTrace.ts';
import { levelOf, type MassTrace } from './trace.ts';

/** Mass above the empty cup that is surely coffee and not noise. */
const SURE_G = 0.4;
/** It is believed once the mass has gone on rising by this much in this time. */
const RISES_BY_G = 0.25;
const RISES_FOR_S = 1;
/** Nothing falls while the scale shows the same to this, between the middle of its first and of its last few readings. */
const FLAT_G = 0.08;
const FLAT_SAMPLES = 4;
/** What the onset is fitted to: up to this long before and after the mass is surely coffee. */
const FIT_BEFORE_S = 4;
const FIT_AFTER_S = 0.5;
/** Place, slope and bend. */
const FITTED = 3;
/** A smooth curve bends up before the first whole drop has fallen. */
const SHOWN_AFTER_S = 0.05;
/** A scale that reads to 0.1 g is never surer than this. */
const LEAST_SCALE_SD_G = 0.03;

/**
 * Seconds from pump start to the first drop.
 * @returns null while no drop has surely fallen.
 */
export function findFirstDropS(trace: MassTrace): number | null {
  return firstDropOf(cleanTrace(trace).massG, trace.hz);
}

/**
 * The first drop in a clean trace: where an empty cup turns into a rising mass, by least squares over all places where it
 * might (a flat line, then a rise that bends upwards).
 */
export function firstDropOf(massG: readonly number[], hz: number): number | null {
  const empty = emptyG(massG, hz);
  const rising = surelyCoffee(massG, hz, empty, 0);
  if (rising === null) return null;
  const flat = lastFlat(massG, hz, rising) ?? { emptyG: empty, from: 0 };
  // The scale may have jumped before: what is surely coffee is so above the level that it rises from.
  const sure = surelyCoffee(massG, hz, flat.emptyG, flat.from);
  return sure === null ? null : onsetS(massG, hz, flat, sure);
}

/** First sample from which the mass is above the empty cup and goes on rising; null while there is none. */
function surelyCoffee(massG: readonly number[], hz: number, empty: number, from: number): number | null {
  const rises = Math.round(RISES_FOR_S * hz);
  const sure = massG.findIndex((mass, i) => {
    if (i < from || mass - empty < SURE_G) return false;
    const [later, stillLater] = [massG[i + rises], massG[i + 2 * rises]];
    // For two seconds: a scale that jumps with a lag rises for one.
    return (
      later !== undefined &&
      later - mass >= RISES_BY_G &&
      (stillLater === undefined || stillLater - later >= RISES_BY_G)
    );
  });
  return sure < 0 ? null : sure;
}

/** The last second before `to` in which nothing fell, and what the scale showed then: it may have jumped before. */
function lastFlat(massG: readonly number[], hz: number, to: number): { emptyG: number; from: number } | null {
  const samples = Math.max(2 * FLAT_SAMPLES, Math.round(hz));
  for (let from = to - samples; from >= 0; from -= 1) {
    const rose =
      mean(massG.slice(from + samples - FLAT_SAMPLES, from + samples)) - mean(massG.slice(from, from + FLAT_SAMPLES));
    if (Math.abs(rose) <= FLAT_G) {
      return { emptyG: levelOf(massG.slice(from, from + samples)), from: startOfFlat(massG, from, samples) };
    }
  }
  return null;
}

/** How far back the scale showed the same. */
function startOfFlat(massG: readonly number[], from: number, samples: number): number {
  const level = levelOf(massG.slice(from, from + samples));
  let start = from;
  while (start > 0 && Math.abs((massG[start - 1] ?? 0) - level) <= 2 * FLAT_G) start -= 1;
  return start;
}

/** Where an empty cup turns into a rising mass that is surely coffee at sample `sure`. */
function onsetS(massG: readonly number[], hz: number, flat: { emptyG: number; from: number }, sure: number): number {
  const empty = flat.emptyG;
  const from = Math.max(flat.from, sure - Math.round(FIT_BEFORE_S * hz));
  const to = Math.min(massG.length - 1, sure + Math.round(FIT_AFTER_S * hz));
  const STEPS_A_SAMPLE = 2;
  const places = Array.from({ length: (sure - from) * STEPS_A_SAMPLE + 1 }, (_, k) => from + k / STEPS_A_SAMPLE);
  const misses = places.map((at) => missOfOnset(massG, hz, empty, at, from, to));
  const least = Math.min(...misses);
  const variance = Math.max(least / Math.max(1, to - from - FITTED), LEAST_SCALE_SD_G ** 2);
  // The mean over all places, each as likely as its fit: steadier than the single best one.
  const weights = misses.map((miss) => Math.exp((least - miss) / (2 * variance)));
  const sum = weights.reduce((total, weight) => total + weight, 0);
  return places.reduce((total, at, k) => total + at * (weights[k] ?? 0), 0) / sum / hz + SHOWN_AFTER_S;
}

/** What the scale shows with nothing in the cup: the middle of its first readings. */
function emptyG(massG: readonly number[], hz: number): number {
  const EMPTY_FOR_S = 1.5;
  return levelOf(massG.slice(0, Math.max(1, Math.round(EMPTY_FOR_S * hz))));
}

/** Squared miss of "nothing until `at`, then b t + c t^2 with neither b nor c below 0". */
function missOfOnset(
  massG: readonly number[],
  hz: number,
  empty: number,
  at: number,
  from: number,
  to: number,
): number {
  let [tt, ttt, tttt, ty, tty, total] = [0, 0, 0, 0, 0, 0];
  for (let i = from; i <= to; i += 1) {
    const y = (massG[i] ?? 0) - empty;
    total += y * y;
    const t = (i - at) / hz;
    if (t <= 0) continue;
    tt += t * t;
    ttt += t ** 3;
    tttt += t ** 4;
    ty += t * y;
    tty += t * t * y;
  }
  const determinant = tt * tttt - ttt * ttt;
  let linear = determinant > 0 ? (ty * tttt - tty * ttt) / determinant : 0;
  let square = determinant > 0 ? (tty * tt - ty * ttt) / determinant : 0;
  if (linear < 0) [linear, square] = [0, tttt > 0 ? Math.max(0, tty / tttt) : 0];
  else if (square < 0) [linear, square] = [tt > 0 ? Math.max(0, ty / tt) : 0, 0];
  return total - 2 * (linear * ty + square * tty) + linear ** 2 * tt + 2 * linear * square * ttt + square ** 2 * tttt;
}
