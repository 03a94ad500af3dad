import { standingFacts } from '@tempera/core/facts';
import { MS_PER_MINUTE, seededRandom } from '@tempera/core/numbers';
import {
  jobsOf,
  makePlan,
  openingState,
  planProblem,
  quickEffort,
  usualEffort,
  type OpeningBar,
  type PlanEffort,
  type SolveMip,
} from '@tempera/core/opening';
import type { Figure } from './figure.ts';
import { percentOf } from './statistics.ts';

const MORNINGS = 24;
const NOW_MS = Date.parse('2031-05-04T05:30:00Z');

/** Two machines, five groups, four grinders: a bar of the demo's size. */
const bar: OpeningBar = {
  machines: [
    { id: 'fern', groups: ['1', '2', '3'].map((id) => ({ id, buttons: 2 })) },
    { id: 'moss', groups: ['4', '5'].map((id) => ({ id, buttons: 2 })) },
  ],
  grinders: [
    { id: 'house', referenceGroupId: '1' },
    { id: 'guest', referenceGroupId: '2' },
    { id: 'decaf', referenceGroupId: '4' },
    { id: 'brew', referenceGroupId: '5' },
  ],
  milk: true,
  byVolume: false,
  upkeepDue: false,
  left: [],
  scale: true,
  provesDoses: false,
};

/** One morning as it may have to be planned: shots to expect, scales, who comes when, machines cold or warming. */
function morning(seed: number) {
  const random = seededRandom(seed);
  const within = (low: number, high: number): number => low + Math.floor((high - low + 1) * random());
  const isOn = random() < 0.5;
  const machines = bar.machines.map(({ id }) => id);
  return planProblem({
    morning: {
      run: 'opening',
      grinderIds: null,
      fromMs: NOW_MS,
      opensAtMs: NOW_MS + 120 * MS_PER_MINUTE,
      people: ['ana', 'ben'].map((personId, i) => ({ personId, fromMs: NOW_MS + i * within(0, 15) * MS_PER_MINUTE })),
      detergent: random() < 0.3,
    },
    jobs: openingState(jobsOf(bar), standingFacts([]), NOW_MS),
    people: [
      { id: 'ana', role: 'head' },
      { id: 'ben', role: 'barista' },
    ],
    history: {},
    shots: new Map(bar.grinders.map(({ id }) => [id, { mean: within(2, 6), sd: 1 }])),
    warmUps: new Map(machines.map((id) => [id, { meanMin: within(15, 28), sdMin: 2 }])),
    onSinceMs: new Map(isOn ? machines.map((id) => [id, NOW_MS - within(1, 20) * MS_PER_MINUTE]) : []),
    scales: within(1, 3),
    nowMs: NOW_MS,
  });
}

/** How long a plan takes on many mornings of a bar of the demo's size, and how much of it is proven. */
export function measurePlans(solve: SolveMip): Figure[] {
  return [...planned('first plan', usualEffort, solve, 2), ...planned('re-plan', quickEffort, solve, 0.5)];
}

function planned(name: string, effort: PlanEffort, solve: SolveMip, aimS: number): Figure[] {
  const plans = Array.from({ length: MORNINGS }, (_, seed) => {
    const problem = morning(seed + 1);
    const began = performance.now();
    const { gap } = makePlan(problem, solve, effort, seededRandom(1));
    return { gap, tookS: (performance.now() - began) / 1_000 };
  });
  const slowestS = Math.max(...plans.map(({ tookS }) => tookS));
  const widest = 100 * Math.max(...plans.map(({ gap }) => gap));
  return [
    { name: `${name} of ${MORNINGS} mornings, slowest`, value: slowestS, unit: 's', aim: `under ${aimS}` },
    { name: `${name}: proven shortest`, value: percentOf(plans, ({ gap }) => gap === 0), unit: '%' },
    { name: `${name}: widest gap`, value: widest, unit: '%' },
  ];
}
