import { MS_PER_DAY } from '../numbers/index.ts';
import type { HeardShot, HouseEvent, RecipeTarget } from './adviceCase.ts';
import { drift, driftGroup, hearShot, newBar, withGrinder, withGroup, type BarModel } from './barModel.ts';
import { emptyChute, grindShot, type Chute } from './chute.ts';
import type { Dial } from './dial.ts';
import { elapsedVariance } from './elapsed.ts';
import { engineDefaults } from './engineDefaults.ts';
import { priorOf } from './grinderPrior.ts';
import { whatItSays } from './whatItSays.ts';

/** A grinder as the bar's history needs it. */
export interface GrinderInBar {
  id: string;
  dial: Dial;
  recipe: RecipeTarget;
  secondsPerMark: number | null;
  retentionG: number | null;
  /** Dial number at x = 0. */
  seedSetting: number;
}

/** A shot of the bar's history, at a time that is known. */
export interface PastShot extends HeardShot {
  grinderId: string;
  atMs: number;
}

/**
 * Hears everything that was pulled on the whole bar, oldest first: what is remembered of every grinder and every group.
 * Shots of grinders that are no longer there are left out.
 * @param bags that went in between, of the same coffee or another
 */
export function rememberBar(
  grinders: readonly GrinderInBar[],
  shots: readonly PastShot[],
  bags: readonly (HouseEvent & { grinderId: string })[] = [],
): BarModel {
  const byId = new Map(grinders.map((grinder) => [grinder.id, grinder]));
  const chutes = new Map<string, Chute>();
  const lastAtMs = new Map<string, number>();
  const groupAtMs = new Map<string, number>();
  return shots.reduce((before, shot) => {
    const grinder = byId.get(shot.grinderId);
    if (!grinder) return before;
    const { id, dial, recipe, retentionG, seedSetting } = grinder;
    let bar = groupSince(withGrinder(before, id, priorOf(grinder, null, null)), shot, groupAtMs);
    const last = lastAtMs.get(id);
    if (last !== undefined) {
      const own = bags.filter((bag) => bag.grinderId === id);
      bar = drift(bar, id, elapsedVariance(last, shot.atMs, own));
    }
    lastAtMs.set(id, shot.atMs);
    const place = { dial, reference: seedSetting, retentionG, recipeDoseG: recipe.doseG };
    const { ground, after } = grindShot(chutes.get(id) ?? emptyChute, shot, place);
    chutes.set(id, after);
    const { told } = whatItSays(bar, id, recipe, shot, ground);
    return told ? hearShot(bar, told).bar : bar;
  }, newBar());
}

/** The bar with the shot's group in it, as far as that may have wandered since it was last heard. */
function groupSince(bar: BarModel, { group, atMs }: PastShot, groupAtMs: Map<string, number>): BarModel {
  if (group === null) return bar;
  const days = (atMs - (groupAtMs.get(group) ?? atMs)) / MS_PER_DAY;
  groupAtMs.set(group, atMs);
  const known = withGroup(bar, group);
  return days > 0 ? driftGroup(known, group, engineDefaults.groupSdPerRootDay ** 2 * days) : known;
}
