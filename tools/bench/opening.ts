import { marksFiner } from '@tempera/core/calibration';
import { seededRandom } from '@tempera/core/numbers';
import { createRequire } from 'node:module';
import { makePlan, type PlanEffort, type SolveMip } from '@tempera/core/opening';
import { solverOf, type HighsLike } from '../../apps/web/src/opening/highsSolver.ts';
import {
  byEngine,
  byRuleOfThumb,
  diagnoseByEngine,
  diagnoseByHand,
  drawFaultyBar,
  drawStation,
  drawTimer,
  foundAtTheBench,
  foundByHand,
  runMorning,
  type DoseFinder,
  type FaultVerdict,
  type FaultyBar,
  type WayOfWorking,
} from '@tempera/core/practice';
import type { Figure } from './figure.ts';
import { measurePlans } from './plans.ts';
import { mean, percentOf } from './statistics.ts';

const MORNINGS = 200;
const GRINDERS = 4;
const FIRST_SEED = 101;
/** Minutes of a shot with its weighing, and of a move with its purge: as in the engine's own bench. */
const SHOT_MIN = 1.2;
const MOVE_MIN = 0.6;
/** Grind, weigh, knock out. */
const DOSE_MIN = 0.5;
const TASTE_MIN = 2;
const SIGN_MIN = 2;
const CHECK_SHOT_G = 18;
/** Timers are drawn apart from stations. */
const TIMER_SEED = 50_000;
/** Nobody waits for a proof: the end of the plan is what is measured. */
const EFFORT: PlanEffort = { tries: 300, solverS: 0.2 };

interface Opening {
  minutes: number;
  grams: number;
  shots: number;
  right: number;
  /** Share of grinders whose time that was left gives the dose. */
  doseRight: number;
  faulty: boolean;
  /** Whether what is off, and nothing else, was named. */
  faultNamed: boolean;
}

interface Way {
  dial: WayOfWorking;
  doseTime: DoseFinder;
  diagnose: (bar: FaultyBar) => FaultVerdict;
  /** Whether the jobs are planned over two people, or done grinder by grinder as they stand. */
  planned: boolean;
}

const ways: Record<string, Way> = {
  Tempera: { dial: byEngine, doseTime: foundAtTheBench, diagnose: diagnoseByEngine, planned: true },
  'rule of thumb': { dial: byRuleOfThumb, doseTime: foundByHand, diagnose: diagnoseByHand, planned: false },
};

/** One grinder from its first dose to its lock, with what finding its dose time cost. */
function dialled(seed: number, way: Way) {
  const station = drawStation(seed);
  const { recipe, dial, startSetting } = station;
  const morning = runMorning(station, way.dial);
  const xs = [...morning.settings, morning.setting].map((setting) => marksFiner(dial, setting, startSetting));
  const found = way.doseTime(drawTimer(TIMER_SEED + seed, recipe.doseG), recipe, xs);
  const { shots, moves, grams, trulyInside } = morning;
  return {
    shots,
    trulyInside,
    doseRight: found.right,
    // The first dose goes away, whoever works.
    grams: grams + recipe.doseG + found.thrownG,
    minutes: shots * SHOT_MIN + moves * MOVE_MIN + (1 + found.doses) * DOSE_MIN,
  };
}

/** From the first dose to the signature: four grinders on two scales, then the groups; in half of the mornings something is off. */
function opening(seed: number, way: Way, solve: SolveMip): Opening {
  const mornings = Array.from({ length: GRINDERS }, (_, i) => dialled(seed * GRINDERS + i, way));
  const bar = drawFaultyBar(seed, seed % 2 === 0);
  const verdict = way.diagnose(bar);
  const dialMin = mornings.map(({ minutes }) => minutes);
  const checkMin = verdict.shots * SHOT_MIN;
  const minutes = way.planned
    ? plannedMin(dialMin, checkMin, solve)
    : inTurnMin(dialMin) + checkMin + TASTE_MIN * GRINDERS * 0.5 + SIGN_MIN;
  return {
    minutes,
    grams: mornings.reduce((sum, { grams }) => sum + grams, 0) + verdict.shots * CHECK_SHOT_G,
    shots: mornings.reduce((sum, { shots }) => sum + shots, 0) + verdict.shots,
    right: mornings.filter(({ trulyInside }) => trulyInside).length / GRINDERS,
    doseRight: mornings.filter(({ doseRight }) => doseRight).length / GRINDERS,
    faulty: bar.fault !== null,
    faultNamed: bar.fault
      ? verdict.finding.kind === bar.fault.kind && verdict.finding.id === bar.fault.id
      : verdict.finding.kind !== 'none' && verdict.finding.kind !== 'unsure',
  };
}

/** Two people take the grinders in the order in which they stand, each with a scale. */
function inTurnMin(dialMin: readonly number[]): number {
  let [first, second] = [0, 0];
  for (const minutes of dialMin) {
    if (first <= second) first += minutes;
    else second += minutes;
  }
  return Math.max(first, second);
}

/** The same jobs as the planner has them. */
function plannedMin(dialMin: readonly number[], checkMin: number, solve: SolveMip): number {
  const none = { who: 'trained' as const, sdMinutes: 0, fromMin: 0, heldBy: null };
  const after = (...keys: string[]) => keys.map((key) => ({ key, lagMin: 0, lagSdMin: 0 }));
  const ids = dialMin.map((_, i) => i);
  const whole = (minutes: number): number => Math.max(1, Math.round(minutes));
  const tasks = [
    ...dialMin.map((minutes, i) => ({
      ...none,
      key: `dial ${i}`,
      minutes: whole(minutes),
      needs: [],
      uses: [`grinder ${i}`, `group ${i}`, 'scale'],
    })),
    ...ids.map((i) => ({ ...none, key: `taste ${i}`, minutes: TASTE_MIN, needs: after(`dial ${i}`), uses: [] })),
    { ...none, key: 'checks', minutes: whole(checkMin), needs: after(...ids.map((i) => `dial ${i}`)), uses: ['scale'] },
  ];
  const sign = { ...none, key: 'sign', minutes: SIGN_MIN, needs: after(...tasks.map(({ key }) => key)), uses: [] };
  const people = ['ana', 'ben'].map((id) => ({ id, fromMin: 0, trained: true, head: id === 'ana', mayNot: [] }));
  const problem = { tasks: [...tasks, sign], people, several: { scale: 2 } };
  return makePlan(problem, solve, EFFORT, seededRandom(1)).endMin;
}

/** Seeded mornings, worked through by Tempera and by the rule of thumb; and how long the plan of a bar takes. */
export async function measureOpening(): Promise<Figure[]> {
  const load = createRequire(import.meta.url)('highs') as () => Promise<HighsLike>;
  const solve = solverOf(await load());
  const rows = Object.entries(ways).flatMap(([row, way]) => {
    const openings = Array.from({ length: MORNINGS }, (_, i) => opening(FIRST_SEED + i, way, solve));
    const cell = (column: string, value: number, unit = ''): Figure => ({
      name: `opening, ${row}: ${column}`,
      value,
      unit,
      cell: { table: 'openings, first dose to sign-off', row, column },
    });
    return [
      cell('minutes', mean(openings.map(({ minutes }) => minutes))),
      cell('grams', mean(openings.map(({ grams }) => grams))),
      cell('shots', mean(openings.map(({ shots }) => shots))),
      cell('right', 100 * mean(openings.map(({ right }) => right)), '%'),
      cell('dosed', 100 * mean(openings.map(({ doseRight }) => doseRight)), '%'),
      cell(
        'named',
        percentOf(
          openings.filter(({ faulty }) => faulty),
          ({ faultNamed }) => faultNamed,
        ),
        '%',
      ),
      cell(
        'false',
        percentOf(
          openings.filter(({ faulty }) => !faulty),
          ({ faultNamed }) => faultNamed,
        ),
        '%',
      ),
    ];
  });
  return [...rows, ...measurePlans(solve)];
}
