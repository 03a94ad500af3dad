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

interface Effect {
  mean: number;
  variance: number;
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
  const stretches = new Map<string, Effect>(shots.map(({ stretch }) => [stretch, { mean: 0, variance: 0 }]));
  const people = new Map<string, Effect>(shots.map(({ personId }) => [personId, { mean: 0, variance: 0 }]));
  let middle = mean(shots.map(({ ln }) => ln));
  let [vStretch, vHands, vShot] = [usual.stretch ** 2, usual.hands ** 2, usual.shot ** 2];
  const of = (effects: Map<string, Effect>, key: string): Effect => effects.get(key) ?? { mean: 0, variance: 0 };
  const fit = (
    effects: Map<string, Effect>,
    keyOf: (shot: SplitShot) => string,
    prior: number,
    rest: (shot: SplitShot) => number,
  ) => {
    const sums = new Map<string, { n: number; total: number }>();
    for (const shot of shots) {
      const held = sums.get(keyOf(shot)) ?? { n: 0, total: 0 };
      sums.set(keyOf(shot), { n: held.n + 1, total: held.total + shot.ln - rest(shot) });
    }
    for (const [key, { n, total }] of sums) {
      const variance = 1 / (n / vShot + 1 / prior);
      effects.set(key, { mean: (variance * total) / vShot, variance });
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
      (shot) => middle + of(people, shot.personId).mean,
    );
    fit(
      people,
      ({ personId }) => personId,
      vHands,
      (shot) => middle + of(stretches, shot.stretch).mean,
    );
    middle = mean(shots.map((shot) => shot.ln - of(stretches, shot.stretch).mean - of(people, shot.personId).mean));
    const left = shots.map((shot) => {
      const [s, p] = [of(stretches, shot.stretch), of(people, shot.personId)];
      return (shot.ln - middle - s.mean - p.mean) ** 2 + s.variance + p.variance;
    });
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
      shots: shots.filter((shot) => shot.personId === personId).length,
    })),
  };
}
