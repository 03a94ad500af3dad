import {
  capacityOf,
  headsOf,
  may,
  tailsOf,
  type Plan,
  type PlanPerson,
  type PlanProblem,
  type PlanTask,
} from './planProblem.ts';

/** A mixed-integer model as sparse rows; every column is 0 or 1, the cost is to be made small. */
export interface MipModel {
  numCols: number;
  numRows: number;
  colCost: number[];
  rowLower: number[];
  rowUpper: number[];
  /** Row i holds indices[starts[i]] up to, without, indices[starts[i + 1]]. */
  starts: number[];
  indices: number[];
  values: number[];
}

/** What a solver says of a model. */
export interface MipAnswer {
  status: 'optimal' | 'infeasible' | 'outOfTime';
  /** Column values of the best solution found; null where none was. */
  columns: ArrayLike<number> | null;
  /** No solution costs less than this. */
  bound: number;
}

/** A solver, handed in: the core itself loads none. */
export type SolveMip = (model: MipModel, timeLimitS: number) => MipAnswer;

/** People who may do the same things are one class, counted and not named: it takes the symmetry out of the model. */
interface PersonClass {
  people: PlanPerson[];
}

interface Column {
  task: PlanTask;
  startMin: number;
  inClass: number;
}

export interface PlanModel {
  model: MipModel;
  columns: Column[];
  classes: PersonClass[];
}

/** The end of everything, as a task that takes no time and nobody's hands. */
const END = 'end of all';

/** What comes after all tasks that nothing else waits for. */
function endOf(tasks: readonly PlanTask[]): PlanTask {
  const before = new Set(tasks.flatMap(({ needs }) => needs.map(({ key }) => key)));
  return {
    key: END,
    minutes: 0,
    sdMinutes: 0,
    who: 'anyone',
    needs: tasks.filter(({ key }) => !before.has(key)).map(({ key }) => ({ key, lagMin: 0, lagSdMin: 0 })),
    uses: [],
    fromMin: 0,
    heldBy: null,
  };
}

/**
 * The plan as a time-indexed model (Pritsker, Watters and Wolfe 1969, with the disaggregated precedences of Christofides,
 * Alvarez-Valdes and Tamarit 1987): x = 1 where a task begins at a minute, with a class of people. What costs is the
 * minute at which all is over; no plan that ends after `mostMin` is in it.
 * @returns null when some task has no minute left: no plan is that short
 */
export function planModel(problem: PlanProblem, mostMin: number): PlanModel | null {
  const end = endOf(problem.tasks);
  const tasks = [...problem.tasks, end];
  const heads = headsOf({ ...problem, tasks });
  const tails = tailsOf(tasks);
  const classes = classesOf(problem.people);
  const columns: Column[] = [];
  const columnsOf = new Map<string, number[]>();
  for (const task of tasks) {
    const from = heads.get(task.key) ?? 0;
    const to = task.heldBy === null ? mostMin - (tails.get(task.key) ?? task.minutes) : 0;
    const own: number[] = [];
    (task === end ? classes.slice(0, 1) : classes).forEach(({ people }, inClass) => {
      const member = people.find((person) => (task.heldBy === null ? may(person, task) : person.id === task.heldBy));
      if (!member) return;
      const first = Math.max(
        from,
        ...(task.heldBy === null ? [Math.min(...people.map(({ fromMin }) => fromMin))] : []),
      );
      for (let startMin = first; startMin <= to; startMin += 1) {
        own.push(columns.length);
        columns.push({ task, startMin, inClass });
      }
    });
    if (own.length === 0) return null;
    columnsOf.set(task.key, own);
  }
  const rows = new Rows();
  for (const own of columnsOf.values())
    rows.add(
      own.map((column) => [column, 1]),
      1,
      1,
    );
  addGates(rows, tasks, columns, columnsOf, mostMin);
  addStations(rows, problem, columns, columnsOf, mostMin);
  addPeople(rows, columns, classes, mostMin);
  const colCost = columns.map(({ task, startMin }) => (task === end ? startMin : 0));
  return { model: { numCols: columns.length, colCost, ...rows.packed() }, columns, classes };
}

/** The plan of a solution: people are named within their class, each task by whoever is free. */
export function planOf({ columns, classes }: PlanModel, values: ArrayLike<number>, problem: PlanProblem): Plan | null {
  const HALF = 0.5;
  const chosen = columns
    .filter(({ task }, i) => task.key !== END && (values[i] ?? 0) > HALF)
    .sort((a, b) => a.startMin - b.startMin);
  const freeAt = new Map(problem.people.map(({ id, fromMin }) => [id, fromMin]));
  for (const { id } of problem.people) {
    const held = problem.tasks.find(({ heldBy }) => heldBy === id);
    if (held) freeAt.set(id, held.minutes);
  }
  const tasks = chosen.map(({ task, startMin, inClass }) => {
    const person =
      task.heldBy ?? classes[inClass]?.people.find(({ id }) => (freeAt.get(id) ?? Infinity) <= startMin)?.id ?? null;
    if (person !== null) freeAt.set(person, startMin + task.minutes);
    return { key: task.key, startMin, endMin: startMin + task.minutes, personId: person };
  });
  if (tasks.length !== problem.tasks.length) return null;
  const named = tasks.flatMap(({ personId, ...task }) => (personId === null ? [] : [{ ...task, personId }]));
  if (named.length !== tasks.length) return null;
  return { tasks: named, endMin: Math.max(...named.map(({ endMin }) => endMin)) };
}

function classesOf(people: readonly PlanPerson[]): PersonClass[] {
  const byRights = new Map<string, PlanPerson[]>();
  for (const person of people) {
    const rights = `${person.trained} ${person.head} ${person.mayNot.toSorted().join(' ')}`;
    byRights.set(rights, [...(byRights.get(rights) ?? []), person]);
  }
  return [...byRights.values()].map((members) => ({ people: members }));
}

/** Rows as they are collected. */
class Rows {
  readonly #lower: number[] = [];
  readonly #upper: number[] = [];
  readonly #starts: number[] = [0];
  readonly #indices: number[] = [];
  readonly #values: number[] = [];

  add(entries: readonly (readonly [column: number, value: number])[], lower: number, upper: number): void {
    for (const [column, value] of entries) {
      this.#indices.push(column);
      this.#values.push(value);
    }
    this.#starts.push(this.#indices.length);
    this.#lower.push(lower);
    this.#upper.push(upper);
  }

  packed(): Omit<MipModel, 'numCols' | 'colCost'> {
    return {
      numRows: this.#lower.length,
      rowLower: this.#lower,
      rowUpper: this.#upper,
      starts: this.#starts,
      indices: this.#indices,
      values: this.#values,
    };
  }
}

/** A task that began by minute t needs each gate before it to have begun early enough to be over by then. */
function addGates(
  rows: Rows,
  tasks: readonly PlanTask[],
  columns: readonly Column[],
  columnsOf: ReadonlyMap<string, number[]>,
  mostMin: number,
): void {
  const byKey = new Map(tasks.map((task) => [task.key, task]));
  for (const task of tasks) {
    const own = columnsOf.get(task.key) ?? [];
    for (const { key, lagMin } of task.needs) {
      const need = byKey.get(key);
      if (!need || task.heldBy !== null) continue;
      const before = columnsOf.get(key) ?? [];
      const firstOwn = Math.min(...own.map((column) => columns[column]?.startMin ?? 0));
      for (let t = firstOwn; t <= mostMin; t += 1) {
        const mine = own.filter((column) => (columns[column]?.startMin ?? 0) <= t);
        const theirs = before.filter((column) => (columns[column]?.startMin ?? 0) + need.minutes + lagMin <= t);
        if (theirs.length === before.length) break;
        rows.add(
          [...mine.map((column) => [column, 1] as const), ...theirs.map((column) => [column, -1] as const)],
          -Infinity,
          0,
        );
      }
    }
  }
}

const runsAt = ({ task, startMin }: Column, t: number): boolean => startMin <= t && t < startMin + task.minutes;

/** A station serves one task at a time, or as many as there are of it. */
function addStations(
  rows: Rows,
  problem: PlanProblem,
  columns: readonly Column[],
  columnsOf: ReadonlyMap<string, number[]>,
  mostMin: number,
): void {
  const { tasks } = problem;
  const stations = new Set(tasks.flatMap(({ uses }) => uses));
  for (const station of stations) {
    const most = capacityOf(problem, station);
    const users = tasks.filter(({ uses }) => uses.includes(station));
    if (users.length <= most) continue;
    const own = users.flatMap(({ key }) => columnsOf.get(key) ?? []);
    for (let t = 0; t < mostMin; t += 1) {
      const running = own.filter((column) => runsAt(columns[column] as Column, t));
      if (running.length > most)
        rows.add(
          running.map((column) => [column, 1]),
          -Infinity,
          most,
        );
    }
  }
}

/** In each minute a class does no more tasks than it has people in. */
function addPeople(rows: Rows, columns: readonly Column[], classes: readonly PersonClass[], mostMin: number): void {
  classes.forEach(({ people }, inClass) => {
    const own = columns.flatMap((column, i) => (column.inClass === inClass ? [i] : []));
    for (let t = 0; t < mostMin; t += 1) {
      const isIn = people.filter(({ fromMin }) => fromMin <= t).length;
      const running = own.filter((column) => runsAt(columns[column] as Column, t));
      if (running.length > isIn)
        rows.add(
          running.map((column) => [column, 1]),
          -Infinity,
          isIn,
        );
    }
  });
}
