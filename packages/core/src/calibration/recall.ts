import type { FactOf } from '../facts/index.ts';
import { hoursBetween, MS_PER_DAY } from '../numbers/index.ts';
import type { Evidence, FilteredBefore, RecipeTarget, Remembered } from './adviceCase.ts';
import { wandered } from './barMemory.ts';
import type { BarMemory, GrinderMemory, LevelMemory, RecentShot } from './memoryState.ts';
import {
  DOSE,
  drift,
  driftGroup,
  levelOf,
  noiseVarianceOf,
  offOfShot,
  recipeOf,
  responseOf,
  withRecipe,
  type BarModel,
} from './barModel.ts';
import { covarianceOf, meanOf, redefined, type Row } from './belief.ts';
import { engineDefaults } from './engineDefaults.ts';
import { caseShotOf } from './caseShot.ts';
import { weightsOfRecent } from './memoryFold.ts';
import { normalisedTime } from './normalisedTime.ts';
import { updateWithObservation } from './observations.ts';
import { siblingOf } from './sibling.ts';

/**
 * The one posterior at a moment: the base, every recent shot of every grinder in the order of time, each with its weight by
 * the others of its grinder, and what may have wandered since. Bench, sheets, plan and day all read this.
 * @param without a shot that is left out, to see what was known before it
 */
export function posterior(memory: BarMemory, nowMs: number, without: string | null = null): BarModel {
  const last = found.get(memory);
  const { known } = last?.nowMs === nowMs ? last : { known: new Map<string | null, BarModel>() };
  if (known !== last?.known) found.set(memory, { nowMs, known });
  const bar = known.get(without) ?? posteriorOf(memory, nowMs, without);
  known.set(without, bar);
  return bar;
}

/** Found last of a memory, and for which moment: every grinder of a bar is asked for the same one. */
const found = new WeakMap<BarMemory, { nowMs: number; known: Map<string | null, BarModel> }>();

function posteriorOf(memory: BarMemory, nowMs: number, without: string | null): BarModel {
  const shots = Object.entries(memory.grinders).flatMap(([id, grinder]) => {
    const weights = weightsOfRecent(memory, id, grinder);
    return grinder.recent.flatMap(({ factId, atMs, observed }) =>
      observed === null || factId === without ? [] : [{ factId, atMs, observed, weight: weights.get(factId) ?? 1 }],
    );
  });
  shots.sort((a, b) => a.atMs - b.atMs || (a.factId < b.factId ? -1 : 1));
  const heard = shots.reduce(
    (bar, { observed, weight }) => updateWithObservation(bar, observed, weight).bar,
    memory.base,
  );
  const wanderedOn = Object.entries(memory.grinders).reduce(
    (bar, [id, grinder]) =>
      grinder.levels.reduce((before, level) => {
        const { levelVariance, responseVariance } = wandered(memory, grinder, level, null, nowMs);
        // What a mark is worth is the grinder's, and wanders once.
        const response = level.coffee === grinder.coffee ? responseVariance : 0;
        return drift(before, id, levelVariance, response, level.coffee);
      }, bar),
    heard,
  );
  const d = engineDefaults;
  return Object.entries(memory.groups).reduce((bar, [id, { lastAtMs }]) => {
    const days = Math.max(0, nowMs - lastAtMs) / MS_PER_DAY;
    return driftGroup(bar, id, d.groupSdPerRootDay ** 2 * days);
  }, wanderedOn);
}

/**
 * What the memory holds of one grinder for its bench: its level as of the recipe in force, and how the shots of the case
 * were heard. Null where it has not heard of the grinder with the coffee in its hopper.
 * @param shots of the case, all of them heard, oldest first
 */
export function remember(
  memory: BarMemory,
  grinderId: string,
  recipe: RecipeTarget,
  shots: readonly FactOf<'shot'>[],
  nowMs: number,
): Remembered | null {
  const grinder = memory.grinders[grinderId];
  if (!grinder) return null;
  const { coffee, basis, recent, chute } = grinder;
  const level = grinder.levels.find((one) => one.coffee === coffee);
  // A coffee that it never pulled: of the rest of the bar, and of what a mark is worth, it knows all the same.
  const asOfRecipe = (bar: BarModel): BarModel => (level ? atRecipe(bar, grinderId, level, recipe) : bar);
  const weights = weightsOfRecent(memory, grinderId, grinder);
  const shareOf = new Map(recent.map(({ factId, oldShare }) => [factId, oldShare]));
  const last = shots.at(-1);
  const known = posterior(memory, nowMs);
  const bar = asOfRecipe(known);
  const heard: FilteredBefore = {
    chute,
    before: last ? asOfRecipe(posterior(memory, nowMs, last.id)) : bar,
    outcomes: shots.map((fact) => {
      const sound = fact.body.flaw === null;
      return {
        normalisedS: sound ? normalisedTime(caseShotOf(fact, 0), recipe).normalisedS : null,
        oldShare: shareOf.get(fact.id) ?? 0,
        weight: weights.get(fact.id) ?? (sound ? 1 : 0),
      };
    }),
  };
  const evidence = level ? evidenceOf(memory.base, known, grinderId, grinder, level) : null;
  return { bar, grinder: grinderId, coffee, reference: basis.seedSetting, heard, ...(evidence && { evidence }) };
}

type Told = RecentShot & { observed: NonNullable<RecentShot['observed']> };

/** The newest shots and looks of a grinder with its coffee, freed of group, dose and recipe, for who asks how it wanders. */
function evidenceOf(
  base: BarModel,
  known: BarModel,
  grinderId: string,
  { coffee, recent }: GrinderMemory,
  level: LevelMemory,
): Evidence | null {
  const d = engineDefaults;
  const told = recent.filter(
    (shot): shot is Told =>
      shot.observed !== null &&
      !shot.observed.shot.choked &&
      (shot.observed.shot.coffee ?? null) === coffee &&
      shot.oldShare <= d.oldShareNotPurged,
  );
  if (told.length === 0) return null;
  const [atLevel, atResponse]: [Row, Row] = [[[levelOf(grinderId, coffee), 1]], [[responseOf(grinderId), 1]]];
  const from = (row: Row): number => meanOf(base.belief, row) - meanOf(known.belief, row);
  return {
    before: {
      level: from(atLevel),
      response: from(atResponse),
      levelVariance: covarianceOf(base.belief, atLevel, atLevel),
      responseVariance: covarianceOf(base.belief, atResponse, atResponse),
      levelResponse: covarianceOf(base.belief, atLevel, atResponse),
    },
    shots: told.map(({ atMs, observed: { shot, levelVariance }, bags = 0 }, i) => {
      // What is more than the walk's own is what happened in between; before the first of them, all of it.
      const hours = hoursBetween(told[i - 1]?.atMs ?? atMs, atMs);
      const jumped = levelVariance - d.driftSdPerRootHour ** 2 * hours - bags * d.newBagSd ** 2;
      return {
        atMs,
        x: shot.x,
        off: offOfShot(known, shot),
        variance: noiseVarianceOf(known, shot),
        jumped: Math.max(0, jumped),
        bags,
      };
    }),
    since: jumpsOf(level),
  };
}

function jumpsOf({ gained, bags = 0 }: LevelMemory): Evidence['since'] {
  return { jumped: Math.max(0, gained - bags * engineDefaults.newBagSd ** 2), bags };
}

/**
 * The bar with a grinder's level as of another dose and yield than it is normalised to: the inverse of `normalisedTime` at
 * the usual first drop, ln(0.22 + 0.78 (Y / Y0)^0.95) + gamma ln(D / D0).
 */
function atRecipe(bar: BarModel, grinder: string, { coffee, recipe }: LevelMemory, to: RecipeTarget): BarModel {
  const sibling = siblingOf(recipe, to);
  if (sibling) {
    const known = withRecipe(bar, sibling.recipeId);
    const by = { other: recipeOf(sibling.recipeId), factor: 1, shift: sibling.lnShift };
    return { ...known, belief: redefined(known.belief, levelOf(grinder, coffee), by) };
  }
  const factor = Math.log(to.doseG / recipe.doseG);
  const { firstDropShare, yieldExponent } = engineDefaults;
  const shift = Math.log(firstDropShare + (1 - firstDropShare) * (to.yieldG / recipe.yieldG) ** yieldExponent);
  if (factor === 0 && shift === 0) return bar;
  return { ...bar, belief: redefined(bar.belief, levelOf(grinder, coffee), { other: DOSE, factor, shift }) };
}
