import { seededRandom } from '@tempera/core/numbers';
import { byOneLever, drawPalate, palateKinds, poured, type Palate } from '@tempera/core/practice';
import { axisSd, MOST_CUPS, trialState, type TrialCup, type TrialPair } from '@tempera/core/taste';
import type { Figure } from './figure.ts';
import { mean, percentOf } from './statistics.ts';

const PALATES = 60;
const FIRST_SEED = 301;
const START: TrialCup = { ratio: 2, timeS: 27, doseG: 18, tempC: 93 };
const AFTER = [4, 6, 8] as const;
const HABIT_CUPS = 10;
const PURGE_G = 20;

interface Miss {
  ratio: number;
  timeS: number;
}

const missOf = ({ best }: Palate, cup: TrialCup): Miss => ({
  ratio: Math.abs(cup.ratio - best.ratio),
  timeS: Math.abs(cup.timeS - best.timeS),
});

/** Distance in sds of what is drawn, so that ratio and seconds count alike. */
const distanceOf = ({ ratio, timeS }: Miss): number => Math.hypot(ratio / axisSd.ratio, timeS / axisSd.timeS);
const isNear = ({ ratio, timeS }: Miss): boolean => ratio <= 0.2 && timeS <= 3;

interface Trial {
  /** Where the trial stood after 4, 6 and 8 cups; over early, it stays where it was. */
  after: Miss[];
  cups: number;
  grams: number;
}

function runTrial(palate: Palate, seed: number): Trial {
  const plan = { start: START, axes: ['ratio', 'timeS'] as const, purgeG: PURGE_G };
  const random = seededRandom(seed);
  const pairs: TrialPair[] = [];
  const after: Miss[] = [];
  let grams = 0;
  let state = trialState(plan, pairs);
  while (state.next) {
    grams += state.next.grams;
    pairs.push(palate.tastes(poured(state.next.left, random), poured(state.next.right, random)));
    state = trialState(plan, pairs);
    if (state.cups >= AFTER[0]) after.push(missOf(palate, state.best.cup));
  }
  const last = after.at(-1);
  while (last && after.length < AFTER.length) after.push(last);
  return { after, cups: state.cups, grams };
}

/** Trials of a new coffee on simulated palates, beside the habit of one lever at a time. */
export function measureTrials(): Figure[] {
  const figures: Figure[] = [];
  const nearer: boolean[] = [];
  const near: boolean[] = [];
  for (const kind of palateKinds) {
    const seeds = Array.from({ length: PALATES }, (_, i) => FIRST_SEED + i);
    const trials = seeds.map((seed) => runTrial(drawPalate(kind, START, seed), seed));
    const habits = seeds.map((seed) => {
      const palate = drawPalate(kind, START, seed);
      return byOneLever(palate, START, HABIT_CUPS, seededRandom(seed)).map((cup) => missOf(palate, cup));
    });
    const row = (name: string, misses: readonly Miss[]): void => {
      const cell = (column: string, value: number, unit: string): void => {
        figures.push({
          name: `${name}, ${column}`,
          value,
          unit,
          cell: { table: `palate: ${kind}`, row: name, column },
        });
      };
      cell('ratio', mean(misses.map(({ ratio }) => ratio)), '');
      cell('seconds', mean(misses.map(({ timeS }) => timeS)), 's');
      cell('near', percentOf(misses, isNear), '%');
    };
    row(
      'the roaster’s start',
      seeds.map((seed) => missOf(drawPalate(kind, START, seed), START)),
    );
    for (const [i, cups] of AFTER.entries())
      row(
        `trial, ${cups} cups`,
        trials.flatMap(({ after }) => after[i] ?? []),
      );
    for (const cups of [...AFTER, HABIT_CUPS])
      row(
        `one lever, ${cups} cups`,
        habits.flatMap((misses) => misses[cups - 1] ?? []),
      );
    for (const [i, { after }] of trials.entries()) {
      const [six, eight, ten] = [after[1], after[2], habits[i]?.at(-1)];
      if (six && ten) nearer.push(distanceOf(six) < distanceOf(ten));
      if (eight) near.push(isNear(eight));
    }
    figures.push(
      { name: `${kind}: cups`, value: mean(trials.map(({ cups }) => cups)), unit: `(at most ${MOST_CUPS})` },
      { name: `${kind}: grams`, value: mean(trials.map(({ grams }) => grams)), unit: 'g' },
    );
  }
  return [
    ...figures,
    {
      name: 'six cups nearer than the habit after ten',
      value: percentOf(nearer, (is) => is),
      unit: '%',
      aim: 'more than half',
    },
    { name: 'within 0.2 and 3 s after eight cups', value: percentOf(near, (is) => is), unit: '%', aim: 'at least 70' },
  ];
}
