import { gaussian, seededRandom, type Random } from '../numbers/index.ts';
import {
  grinderOrGroup,
  type CrossShot,
  type Diagnosis,
  type Finding,
  type RecipeTarget,
} from '../calibration/index.ts';
import { lnOfGroup } from './resistance.ts';
import { pullShotFast, type Hands } from './simulatedShot.ts';
import { drawGroup } from './simulatedStation.ts';

/** A 3 x 3 bar whose grinders were dialled in, with one thing off, or nothing. */
export interface FaultyBar {
  recipes: Readonly<Record<string, RecipeTarget>>;
  groups: readonly string[];
  /** What is wrong; null on a sound bar. */
  fault: { kind: 'grinder' | 'group'; id: string } | null;
  /** Pulls one shot of a grinder through a group. */
  pull(grinder: string, group: string): CrossShot;
}

const GRINDERS = ['g1', 'g2', 'g3'];
const GROUPS = ['A', 'B', 'C'];
/** How near dialled-in grinders sit to where they should. */
const GRINDER_SD = 0.03;
/** Faults of 9-15 % of the shot time; about a seventh of the time does not follow the bed's resistance. */
const FAULT = { least: 0.09 / 0.86, range: 0.06 / 0.86 };
const DOSE_SD_G = 0.12;

export function drawFaultyBar(seed: number, faulty: boolean): FaultyBar {
  const random = seededRandom(seed);
  const hands: Hands = { prepSd: 0.04 + 0.035 * random(), channelChance: 0.01 + 0.04 * random(), channelSeen: 0.5 };
  const effects = new Map<string, number>([
    ...GRINDERS.map((id): [string, number] => [id, GRINDER_SD * gaussian(random)]),
    ...GROUPS.map((id): [string, number] => [id, lnOfGroup(drawGroup(random))]),
  ]);
  const size = (FAULT.least + FAULT.range * random()) * (random() < 0.5 ? 1 : -1);
  const kind = random() < 0.5 ? 'grinder' : 'group';
  const ids = kind === 'grinder' ? GRINDERS : GROUPS;
  const id = ids[Math.floor(random() * ids.length)] ?? 'A';
  if (faulty) effects.set(id, (effects.get(id) ?? 0) + size);
  const recipe: RecipeTarget = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 };
  return {
    recipes: Object.fromEntries(GRINDERS.map((grinder) => [grinder, recipe])),
    groups: GROUPS,
    fault: faulty ? { kind, id } : null,
    pull: (grinder, group) =>
      pullCross(random, hands, recipe, { grinder, group }, (effects.get(grinder) ?? 0) + (effects.get(group) ?? 0)),
  };
}

function pullCross(
  random: Random,
  hands: Hands,
  recipe: RecipeTarget,
  pair: { grinder: string; group: string },
  lnResistance: number,
): CrossShot {
  for (;;) {
    const doseG = Math.round((recipe.doseG + DOSE_SD_G * gaussian(random)) * 10) / 10;
    const stop = { atG: recipe.yieldG - 1.3 + 0.7 * gaussian(random), maxS: 75 };
    const shot = pullShotFast({ doseG, lnResistance, groupEffect: 0, recipe, hands, random }, stop);
    // A channel that somebody saw is pulled again, not written down.
    if (!shot.channelSeen)
      return { ...pair, doseG, yieldG: shot.yieldG, timeS: shot.timeS, firstDropS: shot.firstDropS };
  }
}

export interface FaultVerdict {
  finding: Finding;
  shots: number;
}

const MAX_SHOTS = 12;

/** Follows the engine from pair to pair until it names something or twelve shots are gone. */
export function diagnoseByEngine(bar: FaultyBar): FaultVerdict {
  const shots: CrossShot[] = [];
  let diagnosis: Diagnosis = grinderOrGroup({ ...bar, shots });
  while (diagnosis.next && shots.length < MAX_SHOTS) {
    shots.push(bar.pull(diagnosis.next.grinder, diagnosis.next.group));
    diagnosis = grinderOrGroup({ ...bar, shots });
  }
  return { finding: diagnosis.finding, shots: shots.length };
}

/** How far off a mean must lie, in ln T, before somebody by hand says that this is it: two seconds. */
const HAND_THRESHOLD = 0.073;

/** By hand: every grinder through every group once and one pair again; whatever mean lies farthest off is it. */
export function diagnoseByHand(bar: FaultyBar): FaultVerdict {
  const shots = [
    ...GRINDERS.flatMap((grinder) => GROUPS.map((group) => bar.pull(grinder, group))),
    bar.pull('g1', 'A'),
  ];
  const middle = Math.log(25 * 30) / 2;
  const means = [
    ...GRINDERS.map((id) => ({ kind: 'grinder' as const, id, of: shots.filter((shot) => shot.grinder === id) })),
    ...GROUPS.map((id) => ({ kind: 'group' as const, id, of: shots.filter((shot) => shot.group === id) })),
  ].map(({ kind, id, of }) => ({
    kind,
    id,
    off: of.reduce((sum, shot) => sum + Math.log(shot.timeS) - middle, 0) / of.length,
  }));
  const farthest = means.reduce((most, mean) => (Math.abs(mean.off) > Math.abs(most.off) ? mean : most));
  const named = Math.abs(farthest.off) > HAND_THRESHOLD;
  return {
    finding: named ? { kind: farthest.kind, id: farthest.id, chance: 1 } : { kind: 'none', id: null, chance: 1 },
    shots: shots.length,
  };
}
