import { gaussian, seededRandom, type Random } from '@tempera/core/numbers';
import { advise, rememberBar, usualPolicy, type AdviceCase, type GrinderInBar } from '@tempera/core/calibration';
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
  const grinders = Array.from({ length: GRINDERS }, (_, i): GrinderInBar => {
    const { believed } = drawStation(i + 1);
    return { ...believed, id: `g${i}`, seedSetting: 30 };
  });
  const past = Array.from({ length: PAST_SHOTS }, (_, i) => pastShot(grinders, i, random));
  const last = grinders[0];
  if (!last) return [];
  const caseWith = (bar: ReturnType<typeof rememberBar>): AdviceCase => ({
    ...last,
    house: usualPolicy,
    since: { newBag: false, hours: 14 },
    held: { setting: 30, timeS: 27 },
    remembered: { bar, grinder: last.id, reference: 30 },
    trimG: 0,
    nowMs: null,
    events: [],
    shots: past.filter((shot) => shot.grinderId === last.id).slice(-2),
    standsAt: null,
    purgedG: 0,
  });
  const known = rememberBar(grinders, past);
  const input = caseWith(known);
  return [
    {
      name: 'one advice from the remembered state, median',
      value: medianMs(() => advise(input)),
      unit: 'ms',
      aim: 'at most 1',
    },
    {
      name: 'one advice from scratch, 500 shots of 4 grinders on 5 groups',
      value: medianMs(() => advise(caseWith(rememberBar(grinders, past)))),
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

function pastShot(grinders: readonly GrinderInBar[], i: number, random: Random) {
  const grinder = grinders[i % GRINDERS];
  return {
    grinderId: grinder?.id ?? '',
    atMs: i * SHOT_EVERY_MS,
    setting: 30 + Math.round(2 * gaussian(random)),
    doseG: grinder?.recipe.doseG ?? 18,
    yieldG: grinder?.recipe.yieldG ?? 36,
    timeS: 27 * Math.exp(0.08 * gaussian(random)),
    firstDropS: 6,
    purgedG: 20,
    fault: null,
    group: GROUPS[i % GROUPS.length] ?? null,
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
