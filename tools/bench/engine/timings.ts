import {
  advise,
  benchState,
  emptyMemory,
  updateWithFact,
  updateWithFacts,
  usualPolicy,
  type BarMemory,
  type GrinderInMemory,
  type MemoryContext,
} from '@tempera/core/calibration';
import { standingFacts, type AnyFact, type StandingFacts } from '@tempera/core/facts';
import { gaussian, seededRandom, type Random } from '@tempera/core/numbers';
import { drawStation, pullShot, pullShotFast } from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { quantile } from '../statistics.ts';

const GRINDERS = 4;
const GROUPS = ['1', '2', '3', '4', '5'];
const PAST_SHOTS = 500;
const ROUNDS = 60;
const SHOT_EVERY_MS = 300_000;

/** How long an advice takes with a whole bar behind it, and how many shots a second the simulated bar pulls. */
export function measureTimings(): Figure[] {
  const random = seededRandom(1);
  const { recipe } = drawStation(1);
  const grinders = Array.from({ length: GRINDERS }, (_, i): GrinderInMemory => {
    const { believed } = drawStation(i + 1);
    return { ...believed, id: `g${i}`, seedSetting: 30 };
  });
  const [first] = grinders;
  if (!first) return [];
  const context: MemoryContext = {
    grinders: new Map(grinders.map((grinder) => [grinder.id, grinder])),
    recipeOf: () => recipe,
  };
  const entries = Array.from({ length: PAST_SHOTS }, (_, i) => pastShot(i, random));
  const facts = standingFacts(entries);
  const nowMs = PAST_SHOTS * SHOT_EVERY_MS;
  const adviceOf = (standing: StandingFacts, memory: BarMemory): unknown =>
    advise(benchState(standing, first, recipe, usualPolicy, nowMs, memory).adviceCase);
  const memory = updateWithFacts(emptyMemory, facts, context);
  const next = standingFacts([pastShot(PAST_SHOTS, random)])[0];
  const whole = standingFacts([...entries.slice(0, -2), lockOf(PAST_SHOTS - 3), ...entries.slice(-2)]);
  const { adviceCase } = benchState(whole, first, recipe, usualPolicy, nowMs, memory);
  return [
    {
      name: 'one advice from the remembered state, median',
      value: medianMs(() => advise(adviceCase)),
      unit: 'ms',
      aim: 'at most 1',
    },
    {
      name: 'one fact heard by the memory of 4 grinders on 5 groups, median',
      value: medianMs(() => next && updateWithFact(memory, next, context)),
      unit: 'ms',
      aim: 'under 3',
    },
    {
      name: 'a fact that arrives at a bench with 500 shots of its day: order, memory and advice',
      value: medianMs(() => {
        const standing = standingFacts([...entries, lockOf(PAST_SHOTS - 3)]);
        return adviceOf(standing, next ? updateWithFact(memory, next, context) : memory);
      }),
      unit: 'ms',
      aim: 'under 16',
    },
    {
      name: 'one advice from scratch, 500 shots of 4 grinders on 5 groups',
      value: medianMs(() => adviceOf(whole, updateWithFacts(emptyMemory, facts, context))),
      unit: 'ms',
      aim: 'at most 25',
    },
    {
      name: 'simulated shots without trace',
      value: shotsPerS(pullShotFast, 400_000, random),
      unit: 'a second',
      aim: '200,000',
    },
    { name: 'simulated shots with trace', value: shotsPerS(pullShot, 6_000, random), unit: 'a second', aim: '2,000' },
  ];
}

const place = (i: number) => ({
  id: `00000000-0000-7000-8000-${String(i).padStart(12, '0')}`,
  at: new Date(i * SHOT_EVERY_MS).toISOString(),
  personId: 'p',
  grinderId: `g${i % GRINDERS}`,
  groupId: GROUPS[i % GROUPS.length] ?? null,
});

function pastShot(i: number, random: Random): AnyFact {
  return {
    ...place(i),
    kind: 'shot',
    body: {
      recipeVersionId: 'recipe',
      setting: 30 + Math.round(2 * gaussian(random)),
      doseG: 18,
      yieldG: 36,
      timeS: 27 * Math.exp(0.08 * gaussian(random)),
      firstDropS: 6,
      flaw: null,
      measuredBy: 'scale',
      trace: null,
    },
  };
}

function lockOf(i: number): AnyFact {
  return {
    ...place(i),
    id: `10000000-0000-7000-8000-${String(i).padStart(12, '0')}`,
    grinderId: 'g0',
    kind: 'lock',
    body: {
      recipeVersionId: 'recipe',
      setting: 30,
      doseTimeS: null,
      chance: 0.95,
      expected: { timeS: 27, lowS: 25, highS: 29 },
      nextCheckMin: 60,
      shotIds: [],
    },
  };
}

function medianMs(work: () => unknown): number {
  for (let i = 0; i < ROUNDS; i += 1) work();
  const times = Array.from({ length: ROUNDS }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
  return quantile(times, 0.5);
}

function shotsPerS(pull: typeof pullShotFast, count: number, random: Random): number {
  const { recipe, hands } = drawStation(1);
  const stop = { atG: recipe.yieldG - 1.3, maxS: 75 };
  const one = (): unknown =>
    pull({ doseG: recipe.doseG, lnResistance: 0.1 * gaussian(random), groupEffect: 0, recipe, hands, random }, stop);
  for (let i = 0; i < count / 10; i += 1) one();
  const began = performance.now();
  for (let i = 0; i < count; i += 1) one();
  return (1_000 * count) / (performance.now() - began);
}
