import {
  grinderOrGroup,
  isCheck,
  lastLock,
  type CrossShot,
  type Diagnosis,
  type RecipeTarget,
} from '../calibration/index.ts';
import { chanceBetween } from '../numbers/index.ts';
import { factsSince, ofGrinder, ofKind, stepsOf, type StandingFacts } from '../facts/index.ts';

/** The bar as its groups are checked: who is dialled in, and where. */
export interface CheckedBar {
  recipes: Readonly<Record<string, RecipeTarget>>;
  groups: readonly string[];
}

/**
 * The shots that tell a grinder from a group: of each grinder that holds, the shots of its lock, pulled where it still
 * stands, and every check since. A group that was mended starts anew.
 */
export function crossShots(bar: CheckedBar, facts: StandingFacts, fromMs: number): CrossShot[] {
  const mendedMs = new Map<string, number>();
  for (const { at, body } of stepsOf(facts, 'mended')) mendedMs.set(body.groupId, Date.parse(at));
  const since = factsSince(facts, fromMs);
  return Object.keys(bar.recipes).flatMap((grinder) => {
    const own = ofGrinder(since, grinder);
    const lock = lastLock(own);
    if (lock === null) return [];
    return ofKind(own, 'shot').flatMap((fact): CrossShot[] => {
      if (fact.groupId === null || fact.body.flaw !== null) return [];
      const counts = lock.body.shotIds.includes(fact.id) || (isCheck(fact) && fact.body.setting === lock.body.setting);
      if (!counts || Date.parse(fact.at) < (mendedMs.get(fact.groupId) ?? 0)) return [];
      const { doseG, yieldG, timeS, firstDropS } = fact.body;
      return [{ grinder, group: fact.groupId, doseG, yieldG, timeS, firstDropS }];
    });
  });
}

/** What all shots so far say of the bar's grinders and groups. */
export function diagnoseBar(bar: CheckedBar, shots: readonly CrossShot[]): Diagnosis {
  const used = Object.fromEntries(
    Object.entries(bar.recipes).filter(([grinder]) => shots.some((shot) => shot.grinder === grinder)),
  );
  return grinderOrGroup({ recipes: Object.keys(used).length > 0 ? used : bar.recipes, groups: bar.groups, shots });
}

/** What a check says of one group, and how surely. */
export interface GroupVerdict {
  kind: 'fits' | 'off' | 'grinder' | 'unsure';
  /** The grinder that is off; null for the rest. */
  grinderId: string | null;
  chance: number;
}

/**
 * A group that lies within the window's reach this surely may serve. It serves all day, and a sound one is this sure after
 * a shot or two: a lower bar lets a slow group through on one lucky shot.
 */
const SURE = 0.99;
/** After so many shots through one group another tells little; the likelier of the two is taken. */
const MOST_SHOTS = 5;

/**
 * Whether a group may serve what its grinders were set to: named as off by all shots together, or its own effect inside
 * the window's reach. It always comes to an end.
 * @param shots through this group so far
 * @param reachS seconds by which a shot may differ and still lie in the window
 */
export function groupVerdict(diagnosis: Diagnosis, groupId: string, shots: number, reachS: number): GroupVerdict {
  const { finding } = diagnosis;
  const effect = diagnosis.groups.find(({ id }) => id === groupId);
  const unsure: GroupVerdict = { kind: 'unsure', grinderId: null, chance: finding.chance };
  if (shots === 0 || !effect) return unsure;
  if (finding.kind === 'grinder') return { kind: 'grinder', grinderId: finding.id, chance: finding.chance };
  if (finding.kind === 'group' && finding.id === groupId)
    return { kind: 'off', grinderId: null, chance: finding.chance };
  const inside = chanceBetween(effect.offS, Math.max(effect.sdS, Number.EPSILON), -reachS, reachS);
  if (inside >= SURE) return { kind: 'fits', grinderId: null, chance: inside };
  if (shots < MOST_SHOTS) return unsure;
  return inside >= 0.5
    ? { kind: 'fits', grinderId: null, chance: inside }
    : { kind: 'off', grinderId: null, chance: 1 - inside };
}
