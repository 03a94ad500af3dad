import { grindTimeForS, type RecipeTarget, type WeighedDose } from '../calibration/index.ts';
import { gaussian, MS_PER_HOUR, MS_PER_MINUTE, seededRandom, usual } from '../numbers/index.ts';

/** A grinder's timer on one morning: what a time gives, hidden from whoever sets it, and the time that was left yesterday. */
export interface DrawnTimer {
  yesterdayS: number;
  /** What was weighed at it yesterday, g. */
  yesterdayG: readonly number[];
  /** Grams that this time gives, on the mean, at so many marks finer than where the morning begins. */
  meanG(timeS: number, x: number): number;
  /** One dose on the scale. */
  grindG(timeS: number, x: number): number;
}

/** Ranges with their sources stand in docs/engine.md. */
const RATE_LN_SD = 0.15;
const OVERNIGHT_LN_SD = 0.05;
const LOSS_PER_MARK = { least: 0.01, most: 0.03 };
const YESTERDAY_DOSES = 6;
const DOSE_SD_G = { least: 0.05, most: 0.18 };

/** Draws a timer whose time of yesterday gave the dose, before a night changed the air and somebody turned the collar. */
export function drawTimer(seed: number, doseG: number): DrawnTimer {
  const random = seededRandom(seed);
  const between = ({ least, most }: { least: number; most: number }): number => least + (most - least) * random();
  const rateGps = usual.grindRateGps * Math.exp(RATE_LN_SD * gaussian(random));
  const overnight = Math.exp(OVERNIGHT_LN_SD * gaussian(random));
  const [lossPerMark, doseSdG] = [between(LOSS_PER_MARK), between(DOSE_SD_G)];
  const yesterdayS = tenths(usual.grindLagS + doseG / rateGps);
  const gaveG = rateGps * (yesterdayS - usual.grindLagS);
  const before = seededRandom(seed + 1);
  const meanG = (timeS: number, x: number): number =>
    rateGps * overnight * Math.max(0, timeS - usual.grindLagS) * Math.exp(-lossPerMark * x);
  return {
    yesterdayS,
    yesterdayG: Array.from({ length: YESTERDAY_DOSES }, () => tenths(gaveG + doseSdG * gaussian(before))),
    meanG,
    grindG: (timeS, x) => Math.max(0.1, tenths(meanG(timeS, x) + doseSdG * gaussian(random))),
  };
}

const tenths = (value: number): number => Math.round(value * 10) / 10;

const isOff = (grams: number, { doseG, doseToleranceG }: Pick<RecipeTarget, 'doseG' | 'doseToleranceG'>): boolean =>
  Math.abs(grams - doseG) > (doseToleranceG ?? usual.doseToleranceG);

/** What finding the dose time cost beside the shots. */
interface DoseFound {
  /** Doses ground for nothing else. */
  doses: number;
  /** Their grams, and what was scooped off doses that were too big. */
  thrownG: number;
  /** Whether the time that was left gives the dose, on the mean, inside its tolerance. */
  right: boolean;
}

/** @param xs marks finer than where the morning began: one for each shot, then where the grinder was left */
export type DoseFinder = (timer: DrawnTimer, recipe: RecipeTarget, xs: readonly number[]) => DoseFound;

/** Every dose of the bench is weighed and teaches the time; nothing is ground only for it. */
export const foundAtTheBench: DoseFinder = (timer, { doseG, doseToleranceG }, xs) => {
  const weighed: WeighedDose[] = timer.yesterdayG.map((ground, i) => ({
    ...{ grindTimeS: timer.yesterdayS, doseG: ground, x: 0 },
    atMs: i * BETWEEN_DOSES_MS - NIGHT_MS,
  }));
  let thrownG = 0;
  for (const x of xs.slice(0, -1)) {
    const grindTimeS = grindTimeForS(weighed, doseG, x) ?? timer.yesterdayS;
    const ground = timer.grindG(grindTimeS, x);
    weighed.push({ grindTimeS, doseG: ground, x, atMs: (weighed.length - timer.yesterdayG.length) * BETWEEN_DOSES_MS });
    thrownG += Math.max(0, ground - doseG);
  }
  const last = xs.at(-1) ?? 0;
  const leftS = grindTimeForS(weighed, doseG, last) ?? timer.yesterdayS;
  return { doses: 0, thrownG, right: !isOff(timer.meanG(leftS, last), { doseG, doseToleranceG }) };
};

/** A dose, a shot and a turn of the collar. */
const BETWEEN_DOSES_MS = 2 * MS_PER_MINUTE;
const NIGHT_MS = 16 * MS_PER_HOUR;
const MOST_TRIES = 8;
const MEAN_OF = 3;

/**
 * As many work by hand: doses until one is inside its tolerance, the time in proportion; the same again whenever a dose at
 * the bench is off; and once the grinder stands, the mean of three.
 */
export const foundByHand: DoseFinder = (timer, { doseG, doseToleranceG }, xs) => {
  const off = (grams: number): boolean => isOff(grams, { doseG, doseToleranceG });
  let timeS = timer.yesterdayS;
  let doses = 0;
  let thrownG = 0;
  const inProportion = (grams: number): number => tenths((timeS * doseG) / grams);
  // The dose that is inside goes into the first shot.
  for (let grams = timer.grindG(timeS, 0); off(grams) && doses < MOST_TRIES; grams = timer.grindG(timeS, 0)) {
    doses += 1;
    thrownG += grams;
    timeS = inProportion(grams);
  }
  for (const x of xs.slice(1, -1)) {
    const grams = timer.grindG(timeS, x);
    thrownG += Math.max(0, grams - doseG);
    if (off(grams)) timeS = inProportion(grams);
  }
  const last = xs.at(-1) ?? 0;
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const three = Array.from({ length: MEAN_OF }, () => timer.grindG(timeS, last));
    const sumG = three.reduce((sum, grams) => sum + grams, 0);
    doses += MEAN_OF;
    thrownG += sumG;
    if (!off(sumG / MEAN_OF)) break;
    timeS = inProportion(sumG / MEAN_OF);
  }
  return { doses, thrownG, right: !off(timer.meanG(timeS, last)) };
};
