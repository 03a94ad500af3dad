import loadHighs from 'highs';
import { beforeAll, describe, expect, it } from 'vitest';
import { seededRandom } from '../numbers/index.ts';
import { solverOf, type HighsLike } from '../../../../apps/web/src/opening/highsSolver.ts';
import { planBy } from './listPlan.ts';
import { isPlan, makePlan, simpleBoundMin, usualEffort, type PlanEffort } from './makePlan.ts';
import { planModel, planOf, type SolveMip } from './planModel.ts';
import { nobodyFor, type PlanProblem } from './planProblem.ts';
import { after, glasshouseProblem, person, task } from './testMorning.ts';

let solve: SolveMip;
beforeAll(async () => {
  solve = solverOf((await loadHighs()) as unknown as HighsLike);
});

const thorough: PlanEffort = { tries: 1, solverS: 20 };
const plan = (problem: PlanProblem, effort = thorough) => makePlan(problem, solve, effort, seededRandom(1));
const two = [person('ana'), person('ben')];

describe('the shortest plan, by cases whose optimum is known by hand', () => {
  it.each<[string, PlanProblem, number]>([
    ['nothing to do', { tasks: [], people: two }, 0],
    ['one task', { tasks: [task('a', 4)], people: two }, 4],
    ['a chain cannot be shared', { tasks: [task('a', 3), task('b', 4, { needs: after('a') })], people: two }, 7],
    ['two at once', { tasks: [task('a', 3), task('b', 4)], people: two }, 4],
    ['one pair of hands', { tasks: [task('a', 3), task('b', 4)], people: [person('ana')] }, 7],
    [
      'one scale between two people',
      { tasks: [task('a', 3, { uses: ['scale'] }), task('b', 4, { uses: ['scale'] })], people: two },
      7,
    ],
    [
      'four of 4, 3, 3 and 2 minutes between two: 6 each',
      { tasks: [task('a', 4), task('b', 3), task('c', 3), task('d', 2)], people: two },
      6,
    ],
    [
      'longest first gives 7 for 3, 3, 2, 2, 2; two threes apart from three twos give 6',
      { tasks: [task('a', 3), task('b', 3), task('c', 2), task('d', 2), task('e', 2)], people: two },
      6,
    ],
    [
      'a machine that warms for 20 minutes while the hoppers are filled',
      {
        tasks: [
          task('on', 1),
          task('hopper', 6),
          task('rinse', 2, { needs: [{ key: 'on', lagMin: 20, lagSdMin: 0 }] }),
        ],
        people: [person('ana')],
      },
      23,
    ],
    [
      'the second comes at minute 5',
      { tasks: [task('a', 6), task('b', 6)], people: [person('ana'), person('ben', { fromMin: 5 })] },
      11,
    ],
    [
      'only the head signs, and comes last',
      {
        tasks: [task('a', 2), task('sign', 1, { who: 'head', needs: after('a') })],
        people: [person('ana'), person('hedda', { head: true, fromMin: 9 })],
      },
      10,
    ],
    [
      'a trainee fills hoppers while the trained work the machine',
      {
        tasks: [task('hopper', 5, { who: 'anyone' }), task('dial', 5)],
        people: [person('ana'), person('tim', { trained: false })],
      },
      5,
    ],
    [
      'two grinders share a group, two others share another: pairs in parallel',
      {
        tasks: [
          task('g1', 5, { uses: ['A'] }),
          task('g2', 5, { uses: ['A'] }),
          task('g3', 5, { uses: ['B'] }),
          task('g4', 5, { uses: ['B'] }),
        ],
        people: [...two, person('cy')],
      },
      10,
    ],
    [
      'three on two scales',
      {
        tasks: [
          task('a', 4, { uses: ['scale'] }),
          task('b', 4, { uses: ['scale'] }),
          task('c', 4, { uses: ['scale'] }),
        ],
        people: [...two, person('cy')],
        several: { scale: 2 },
      },
      8,
    ],
    [
      'what somebody has in hand stays in hand',
      { tasks: [task('a', 3, { heldBy: 'ben' }), task('b', 3)], people: [person('ben')] },
      6,
    ],
  ])('%s', (_, problem, minutes) => {
    const found = plan(problem);
    expect(found.endMin).toBe(minutes);
    expect(found.atLeastMin).toBe(minutes);
    expect(found.gap).toBe(0);
    expect(isPlan(found, problem)).toBe(true);
  });

  it('is found by the solver where no order of the hand rule finds it at the first try', () => {
    // Longest chain first starts "long" at once and blocks the station that the others wait for.
    const problem: PlanProblem = {
      people: two,
      tasks: [
        task('a', 4, { uses: ['s'] }),
        task('b', 2, { uses: ['s'] }),
        task('c', 5, { needs: after('b') }),
        task('d', 3),
      ],
    };
    const model = planModel(problem, 9);
    const answer = model && solve(model.model, 20);
    const best = model && answer?.columns ? planOf(model, answer.columns, problem) : null;
    expect(best && isPlan(best, problem)).toBe(true);
    expect(plan(problem).endMin).toBe(7);
  });

  it('agrees with trying every order, on small random bars', () => {
    for (let seed = 1; seed <= 25; seed += 1) {
      const random = seededRandom(seed);
      const of = (n: number): number => Math.floor(random() * n);
      const tasks = Array.from({ length: 6 }, (_, i) =>
        task(`t${i}`, 1 + of(4), {
          uses: random() < 0.5 ? [`s${of(2)}`] : [],
          needs: i > 0 && random() < 0.4 ? after(`t${of(i)}`) : [],
          fromMin: of(3),
        }),
      );
      const problem = { tasks, people: [person('ana'), person('ben', { fromMin: of(4) })] };
      const found = makePlan(problem, solve, thorough, random);
      expect(isPlan(found, problem)).toBe(true);
      expect({ seed, endMin: found.endMin, gap: found.gap }).toEqual({ seed, endMin: shortest(problem), gap: 0 });
    }
  });
});

/** The second method: every order of the tasks, each task as early as it goes. */
function shortest(problem: PlanProblem): number {
  let best = Infinity;
  const permute = (left: readonly string[], order: readonly string[]): void => {
    if (left.length === 0) {
      const rank = new Map(order.map((key, i) => [key, -i]));
      best = Math.min(best, planBy(problem, ({ key }) => rank.get(key) ?? 0).endMin);
    }
    for (const key of left)
      permute(
        left.filter((other) => other !== key),
        [...order, key],
      );
  };
  permute(
    problem.tasks.map(({ key }) => key),
    [],
  );
  return best;
}

describe('a bar of real size', () => {
  const crew = [person('ines', { head: true }), person('noor', { fromMin: 3 })];
  const problem = glasshouseProblem(crew);

  it.each([1, 2, 3])('with %i scales is planned to the proven minute, or close to it', (scales) => {
    const bar = { ...problem, several: { scale: scales } };
    const found = makePlan(bar, solve, usualEffort, seededRandom(7));
    expect(isPlan(found, bar)).toBe(true);
    expect(found.gap).toBeLessThan(0.1);
  });

  it('is planned to the proven minute, or says how much is not proven', () => {
    const found = makePlan(problem, solve, usualEffort, seededRandom(7));
    expect(isPlan(found, problem)).toBe(true);
    expect(found.tasks).toHaveLength(problem.tasks.length);
    expect(found.atLeastMin).toBeGreaterThanOrEqual(simpleBoundMin(problem));
    expect(found.gap).toBeCloseTo((found.endMin - found.atLeastMin) / found.endMin, 9);
    expect(found.gap).toBeLessThan(0.1);
  });

  it('has a plan without a solver, and when the solver has no time', () => {
    const noTime: SolveMip = () => ({ status: 'outOfTime', columns: null, bound: -Infinity });
    for (const solver of [null, noTime]) {
      const found = makePlan(problem, solver, usualEffort, seededRandom(7));
      expect(isPlan(found, problem)).toBe(true);
      expect(found.atLeastMin).toBe(simpleBoundMin(problem));
    }
  });

  it('is the same plan on every device', () => {
    const on = () => makePlan(problem, null, usualEffort, seededRandom(7)).tasks;
    expect(on()).toEqual(on());
  });

  it('knows what nobody who is in may do', () => {
    expect(nobodyFor({ ...problem, people: [person('noor')] })).toEqual(['signOff:bar']);
    expect(() => planBy({ ...problem, people: [person('noor')] }, () => 0)).toThrow(/nobody is in who may do signOff/);
  });
});

describe('jobs that ask for a sign-off', () => {
  const problem: PlanProblem = {
    // Both are as good at everything else, so that a class of equals would mix them up.
    people: [person('noor', { mayNot: ['dial:brew'] }), person('tobin')],
    tasks: [task('dial:brew', 10), task('dial:house', 10)],
  };

  it.each(['by the solver', 'without it'])('go to whoever is signed off for them, %s', (how) => {
    const solver = how === 'by the solver' ? solve : null;
    const { tasks, endMin } = makePlan(problem, solver, usualEffort, seededRandom(7));
    expect(Object.fromEntries(tasks.map(({ key, personId }) => [key, personId]))).toEqual({
      'dial:brew': 'tobin',
      'dial:house': 'noor',
    });
    expect(endMin).toBe(10);
  });

  it('have nobody where only somebody else is in', () => {
    expect(nobodyFor({ ...problem, people: [person('noor', { mayNot: ['dial:brew'] })] })).toEqual(['dial:brew']);
  });
});

describe('isPlan', () => {
  const problem: PlanProblem = {
    people: two,
    tasks: [task('a', 3, { uses: ['s'] }), task('b', 2, { uses: ['s'], needs: after('a') })],
  };
  const at = (a: number, b: number, who = 'ana') => ({
    endMin: 9,
    tasks: [
      { key: 'a', startMin: a, endMin: a + 3, personId: 'ana' },
      { key: 'b', startMin: b, endMin: b + 2, personId: who },
    ],
  });
  it.each([
    ['in order', at(0, 3), true],
    ['through a shut gate', at(0, 2, 'ben'), false],
    ['by a stranger', at(0, 3, 'cy'), false],
    ['with a task left out', { endMin: 3, tasks: at(0, 3).tasks.slice(0, 1) }, false],
  ])('%s', (_, candidate, is) => {
    expect(isPlan(candidate, problem)).toBe(is);
  });
});
