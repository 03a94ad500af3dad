import type { RecipeTarget } from './adviceCase.ts';
import { DOSE, groupOf, levelOf } from './barModel.ts';
import { beliefOf, predict, update, type Belief, type Row } from './belief.ts';
import { engineDefaults } from './engineDefaults.ts';
import { normalisedTime, type ShotNumbers } from './normalisedTime.ts';
import { windowMiddleS } from './windowMiddle.ts';

/** A shot of one grinder through one group, pulled while all of them should sit at their recipe. */
export interface CrossShot extends ShotNumbers {
  grinder: string;
  group: string;
}

/** The bar in question: recipes by grinder, and every group, whether shots ran through them or not. */
export interface CrossCheck {
  recipes: Readonly<Record<string, RecipeTarget>>;
  groups: readonly string[];
  shots: readonly CrossShot[];
}

interface Effect {
  id: string;
  /** Seconds that it runs slow (positive) or fast, against its window's middle. */
  offS: number;
  sdS: number;
}

export interface Finding {
  kind: 'grinder' | 'group' | 'none' | 'unsure';
  /** What is off; null for none and unsure. */
  id: string | null;
  chance: number;
}

export interface Diagnosis {
  grinders: Effect[];
  groups: Effect[];
  finding: Finding;
  /** The pair whose shot would settle it best; null when it is settled. */
  next: { grinder: string; group: string } | null;
}

/** One thing that may be wrong, or that nothing is. */
interface Hypothesis {
  kind: 'grinder' | 'group' | 'none';
  id: string | null;
  chance: number;
  belief: Belief;
}

interface Pair {
  grinder: string;
  group: string;
}

/**
 * Grinder or group? Compares what would explain the shots: nothing wrong, one grinder off, one group off, each fast or slow
 * (Bayesian model comparison over linear Gaussian models; evidence by the filter's one-step predictions). The next pair is
 * the one that is expected to reduce the doubt between them most for each gram (Lindley 1956).
 */
export function grinderOrGroup(check: CrossCheck): Diagnosis {
  const hypotheses = check.shots.reduce(
    (weighed, shot) => updateWith(weighed, check, shot),
    possible(Object.keys(check.recipes), check.groups),
  );
  const finding = findingOf(hypotheses);
  const meanMiddleS =
    Object.values(check.recipes).reduce((sum, recipe) => sum + windowMiddleS(recipe.timeS), 0) /
    Object.keys(check.recipes).length;
  return {
    grinders: Object.entries(check.recipes).map(([id, recipe]) =>
      effectOf(hypotheses, id, levelOf(id), windowMiddleS(recipe.timeS)),
    ),
    groups: check.groups.map((id) => effectOf(hypotheses, id, groupOf(id), meanMiddleS)),
    finding,
    next: finding.kind === 'unsure' ? mostTelling(hypotheses, check) : null,
  };
}

function possible(grinders: readonly string[], groups: readonly string[]): Hypothesis[] {
  const d = engineDefaults;
  const faulty = [
    ...grinders.map((id) => ({ kind: 'grinder' as const, id })),
    ...groups.map((id) => ({ kind: 'group' as const, id })),
  ];
  const beliefWith = (off: { name: string; mean: number } | null): Belief =>
    beliefOf([
      { name: DOSE, mean: d.doseExponent, sd: d.doseExponentSd },
      ...grinders.map((id) => unknownOf(levelOf(id), d.grinderSoundSd, off)),
      ...groups.map((id) => unknownOf(groupOf(id), d.groupSoundSd, off)),
    ]);
  const each = (1 - d.soundBarChance) / (2 * faulty.length);
  return [
    { kind: 'none', id: null, chance: d.soundBarChance, belief: beliefWith(null) },
    ...faulty.flatMap(({ kind, id }) =>
      [1, -1].map((sign) => ({
        kind,
        id,
        chance: each,
        belief: beliefWith({ name: kind === 'group' ? groupOf(id) : levelOf(id), mean: sign * d.faultSize }),
      })),
    ),
  ];
}

function unknownOf(name: string, soundSd: number, off: { name: string; mean: number } | null) {
  return off?.name === name ? { name, mean: off.mean, sd: engineDefaults.faultSizeSd } : { name, mean: 0, sd: soundSd };
}

function rowOf({ grinder, group }: Pair, lnDose: number): Row {
  return [
    [levelOf(grinder), 1],
    [groupOf(group), 1],
    [DOSE, lnDose],
  ];
}

/** A shot that is surely a channel still counts for this much: dividing by nothing helps nobody. */
const LEAST_WEIGHT = 1e-3;

/** Every hypothesis hears the shot; what it expected of it weighs its chance. */
function updateWith(hypotheses: readonly Hypothesis[], { recipes }: CrossCheck, shot: CrossShot): Hypothesis[] {
  const recipe = recipes[shot.grinder];
  if (!recipe) throw new RangeError(`grinderOrGroup: no recipe for grinder ${shot.grinder}`);
  const { lnAtYieldS, lnDose, correctionVariance } = normalisedTime(shot, recipe);
  const row = rowOf(shot, lnDose);
  const noise = engineDefaults.shotSd ** 2 + correctionVariance;
  const value = lnAtYieldS - Math.log(windowMiddleS(recipe.timeS));
  const weighed = hypotheses.map((hypothesis) => {
    const expected = predict(hypothesis.belief, row);
    const residual = value - expected.mean;
    const variance = expected.variance + noise;
    const { density, soundShare } = explained(residual, variance);
    const belief = update(hypothesis.belief, expected, value, noise / Math.max(soundShare, LEAST_WEIGHT));
    return { ...hypothesis, belief, chance: hypothesis.chance * density };
  });
  return normalised(weighed);
}

/**
 * How likely a hypothesis found the shot: a sound shot, or now and then a channel that nobody saw, which runs fast. The
 * share that the sound part has of it is how much the shot may teach.
 */
function explained(residual: number, variance: number): { density: number; soundShare: number } {
  const { unseenChannelChance: chance, channelShift, channelShiftSd } = engineDefaults;
  const sound = (1 - chance) * normalDensity(residual, variance);
  const channel = chance * normalDensity(residual - channelShift, variance + channelShiftSd ** 2);
  return { density: sound + channel, soundShare: sound / (sound + channel) };
}

function normalised(hypotheses: readonly Hypothesis[]): Hypothesis[] {
  const sum = hypotheses.reduce((total, { chance }) => total + chance, 0);
  return hypotheses.map((hypothesis) => ({ ...hypothesis, chance: hypothesis.chance / sum }));
}

/** What is named: the fault, or none, that is likelier than the house's sureness of naming. */
function findingOf(hypotheses: readonly Hypothesis[]): Finding {
  const chances = new Map<string, Finding & { kind: Hypothesis['kind'] }>();
  for (const { kind, id, chance } of hypotheses) {
    const key = `${kind} ${id ?? ''}`;
    chances.set(key, { kind, id, chance: (chances.get(key)?.chance ?? 0) + chance });
  }
  const likeliest = [...chances.values()].reduce((best, candidate) =>
    candidate.chance > best.chance ? candidate : best,
  );
  if (likeliest.chance >= engineDefaults.namingSureness) return likeliest;
  return { kind: 'unsure', id: null, chance: likeliest.chance };
}

/** Mean and doubt of one effect over all hypotheses, in seconds. */
function effectOf(hypotheses: readonly Hypothesis[], id: string, name: string, middleS: number): Effect {
  const row: Row = [[name, 1]];
  const parts = hypotheses.map(({ chance, belief }) => {
    const { mean, variance } = predict(belief, row);
    return { mean: chance * mean, square: chance * (variance + mean ** 2) };
  });
  const mean = parts.reduce((sum, part) => sum + part.mean, 0);
  const variance = parts.reduce((sum, part) => sum + part.square, 0) - mean ** 2;
  return { id, offS: middleS * mean, sdS: middleS * Math.sqrt(Math.max(0, variance)) };
}

/** Three-point Gauss-Hermite rule. */
const NODES = [
  { z: -Math.sqrt(3), weight: 1 / 6 },
  { z: 0, weight: 2 / 3 },
  { z: Math.sqrt(3), weight: 1 / 6 },
];
/** Hypotheses less likely than this are not asked what they expect. */
const HARDLY_POSSIBLE = 2e-3;

function mostTelling(hypotheses: readonly Hypothesis[], { recipes, groups }: CrossCheck): Pair | null {
  const alive = hypotheses.filter(({ chance }) => chance > HARDLY_POSSIBLE);
  let best: (Pair & { perGram: number }) | null = null;
  for (const [grinder, recipe] of Object.entries(recipes)) {
    for (const group of groups) {
      const perGram = expectedReduction(alive, rowOf({ grinder, group }, 0)) / recipe.doseG;
      if (!best || perGram > best.perGram) best = { grinder, group, perGram };
    }
  }
  return best && { grinder: best.grinder, group: best.group };
}

/** Expected reduction of entropy over the hypotheses by one shot, in nats. */
function expectedReduction(hypotheses: readonly Hypothesis[], row: Row): number {
  const expected = hypotheses.map(({ chance, belief }) => {
    const { mean, variance } = predict(belief, row);
    return { chance, mean, variance: variance + engineDefaults.shotSd ** 2 };
  });
  let after = 0;
  for (const one of expected) {
    for (const { z, weight } of NODES) {
      const seen = one.mean + z * Math.sqrt(one.variance);
      after += one.chance * weight * entropy(expected.map((h) => h.chance * normalDensity(seen - h.mean, h.variance)));
    }
  }
  return entropy(expected.map(({ chance }) => chance)) - after;
}

function normalDensity(residual: number, variance: number): number {
  return Math.exp((-0.5 * residual ** 2) / variance) / Math.sqrt(variance);
}

/** Entropy of weights that need not sum to one. */
function entropy(weights: readonly number[]): number {
  const sum = weights.reduce((total, weight) => total + weight, 0);
  if (!(sum > 0)) return 0;
  return weights.reduce((total, weight) => (weight > 0 ? total - (weight / sum) * Math.log(weight / sum) : total), 0);
}
