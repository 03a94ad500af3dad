import { mean, sum } from '../numbers/index.ts';

/** One timed shot as the split sees it: what it was off the middle, ln T, in which stretch and by whose hands. */
export interface SplitShot {
  ln: number;
  /** Shots of one grinder at one setting on one day share it. */
  stretch: string;
  personId: string;
}

/** How one person's shots differ from the house's, with shrinkage: nobody is judged by three shots. */
export interface HandsOffset {
  personId: string;
  /** ln T against all others, and its doubt (one sd). */
  offLn: number;
  sdLn: number;
  shots: number;
}

/** Where the spread of a grinder's shots comes from, as sds of ln T. */
export interface VarianceSplit {
  /** From one stretch to the next: drift that nobody followed, bags, days. */
  stretchSd: number;
  handsSd: number;
  /** From shot to shot at one setting by one person. */
  shotSd: number;
  hands: HandsOffset[];
}

/** Begins from the trade's usual sds, each worth so many observations: of little data nothing is claimed. */
const usualSds = { stretch: 0.04, hands: 0.02, shot: 0.055 };
const PRIOR_WORTH = { stretch: 4, hands: 3, shot: 8 };
const ROUNDS = 60;

/** What one stretch, or one person, is off by. */
interface Effect {
  mean: number;
  variance: number;
}
const none = (): Effect => ({ mean: 0, variance: 0 });

/** Shots of one person in one stretch: no more of them enters the split than their number, their mean and their squares about it. */
interface Cell {
  stretch: Effect;
  person: Effect;
  n: number;
  mean: number;
  squares: number;
}

/** @returns the cells, and the effects of stretches and of people that they share, by name */
function cellsOf(shots: readonly SplitShot[]) {
  const stretches = new Map<string, Effect>();
  const people = new Map<string, Effect>();
  const cells = new Map<string, Cell>();
  const shared = (effects: Map<string, Effect>, key: string): Effect => {
    const effect = effects.get(key) ?? none();
    effects.set(key, effect);
    return effect;
  };
  for (const { ln, stretch, personId } of shots) {
    const key = JSON.stringify([stretch, personId]);
    const cell = cells.get(key) ?? {
      stretch: shared(stretches, stretch),
      person: shared(people, personId),
      n: 0,
      mean: 0,
      squares: 0,
    };
    cells.set(key, cell);
    // Welford's update (Knuth, TAOCP 2, 4.2.2).
    const off = ln - cell.mean;
    cell.n += 1;
    cell.mean += off / cell.n;
    cell.squares += off * (ln - cell.mean);
  }
  return { cells: [...cells.values()], stretches, people };
}

/**
 * Splits the spread of shots into stretches, hands and the rest: ln_i = m + stretch + hands + e, all random, by a mean-field
 * variational EM with inverse gamma beliefs of the three variances (Bishop 2006, ch. 10; Searle et al. 1992 for the model). For one balanced
 * factor and a vague belief it gives the estimators of the one-way analysis of variance.
 * @returns null of fewer than three shots
 */
export function splitVariance(
  shots: readonly SplitShot[],
  usual = usualSds,
  worth = PRIOR_WORTH,
): VarianceSplit | null {
  if (shots.length < 3) return null;
  const { cells, stretches, people } = cellsOf(shots);
  let middle = mean(shots.map(({ ln }) => ln));
  let [vStretch, vHands, vShot] = [usual.stretch ** 2, usual.hands ** 2, usual.shot ** 2];
  const fit = (
    effects: Map<string, Effect>,
    effectOf: (cell: Cell) => Effect,
    prior: number,
    restOf: (cell: Cell) => number,
  ) => {
    const sums = new Map([...effects.values()].map((effect) => [effect, { n: 0, total: 0 }]));
    for (const cell of cells) {
      const held = sums.get(effectOf(cell));
      if (!held) continue;
      held.n += cell.n;
      held.total += cell.n * (cell.mean - restOf(cell));
    }
    for (const [effect, { n, total }] of sums) {
      effect.variance = 1 / (n / vShot + 1 / prior);
      effect.mean = (effect.variance * total) / vShot;
    }
  };
  const updated = (effects: Map<string, Effect>, sd: number, n0: number): number => {
    const squares = sum([...effects.values()].map(({ mean: at, variance }) => at ** 2 + variance));
    return (n0 * sd ** 2 + squares) / (n0 + effects.size);
  };
  for (let round = 0; round < ROUNDS; round += 1) {
    fit(
      stretches,
      ({ stretch }) => stretch,
      vStretch,
      ({ person }) => middle + person.mean,
    );
    fit(
      people,
      ({ person }) => person,
      vHands,
      ({ stretch }) => middle + stretch.mean,
    );
    middle = sum(cells.map(({ n, mean: at, stretch, person }) => n * (at - stretch.mean - person.mean))) / shots.length;
    const left = cells.map(
      ({ n, mean: at, squares, stretch, person }) =>
        squares + n * ((at - middle - stretch.mean - person.mean) ** 2 + stretch.variance + person.variance),
    );
    vShot = (worth.shot * usual.shot ** 2 + sum(left)) / (worth.shot + shots.length);
    vStretch = updated(stretches, usual.stretch, worth.stretch);
    vHands = updated(people, usual.hands, worth.hands);
  }
  // Hands are told against the house's mean: what all share is nobody's.
  const shared = mean([...people.values()].map(({ mean: at }) => at));
  return {
    stretchSd: Math.sqrt(vStretch),
    handsSd: Math.sqrt(vHands),
    shotSd: Math.sqrt(vShot),
    hands: [...people].map(([personId, effect]) => ({
      personId,
      offLn: effect.mean - shared,
      sdLn: Math.sqrt(effect.variance),
      shots: sum(cells.map(({ n, person }) => (person === effect ? n : 0))),
    })),
  };
}
