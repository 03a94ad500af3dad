import {
  engineDefaults,
  type BenchGrinder,
  type GrinderInMemory,
  type MemoryContext,
  type RecipeTarget,
} from '@tempera/core/calibration';
import { pumpWindowS } from '@tempera/core/house';
import { aimAfter, type AimChange } from '@tempera/core/taste';
import type { Bar, Grinder } from './bar.ts';
import type { RecipeVersion } from './house.ts';

/** The bar as the engine knows it: the one place where what crosses the wire is turned into what core computes with. */

/** What a recipe aims at, by the bench's clock, which starts with the pump. */
export function targetOf(
  recipe: Pick<RecipeVersion, 'recipeId' | 'doseG' | 'yieldG' | 'doseToleranceG' | 'doseNoMore'> &
    Parameters<typeof pumpWindowS>[0],
): RecipeTarget {
  const { recipeId, doseG, yieldG, doseToleranceG, doseNoMore } = recipe;
  return { recipeId, doseG, yieldG, doseToleranceG, ...(doseNoMore ? { doseNoMore } : {}), timeS: pumpWindowS(recipe) };
}

/** How a grinder's collar is read; behind a dual-walled basket no advice turns it far. */
export function dialOf({
  stepMarks,
  finer,
  dialMin,
  dialMax,
  dualWalled = false,
}: Pick<Grinder, 'stepMarks' | 'finer' | 'dialMin' | 'dialMax'> & { dualWalled?: boolean }) {
  return {
    stepMarks,
    finer,
    range: { min: dialMin, max: dialMax },
    ...(dualWalled ? { mostSteps: engineDefaults.dualWallMostSteps } : {}),
  };
}

type Sheet = Parameters<typeof dialOf>[0] & Omit<GrinderInMemory, 'dial'>;

/** A grinder's sheet as the engine knows it. */
export function grinderOf(sheet: Sheet): GrinderInMemory {
  const { id, secondsPerMark, retentionG, seedSetting } = sheet;
  return { id, dial: dialOf(sheet), secondsPerMark, retentionG, seedSetting };
}

/** What a grinder's bench aims at: its recipe, with when the first drop should fall and what the basket takes. */
export function benchTargetOf({ recipe, basketG }: Pick<Grinder, 'recipe' | 'basketG'>): RecipeTarget {
  return {
    ...targetOf(recipe),
    firstDropS: { min: recipe.firstDropMinS, max: recipe.firstDropMaxS },
    ...(basketG ? { basketG } : {}),
  };
}

/** A grinder with what is known of its hopper, as its bench needs it. */
export const benchGrinderOf = (grinder: Grinder, recipesNamed: readonly RecipeVersion[] = []): BenchGrinder => ({
  ...grinderOf(grinder),
  otherRecipes: versionsOfOthers(grinder, recipesNamed),
  besides: grinder.bagPast ? ['bagPast'] : [],
});

/** Every version that anything names of the coffee's other recipes. */
function versionsOfOthers({ others }: Grinder, recipesNamed: readonly RecipeVersion[]): ReadonlySet<string> {
  const ids = new Set(others.map(({ recipe }) => recipe.recipeId));
  const versions = [...recipesNamed, ...others.map(({ recipe }) => recipe)];
  return new Set(versions.filter(({ recipeId }) => ids.has(recipeId)).map(({ id }) => id));
}

/** A grinder with today's aim for its recipe; unchanged where taste changed nothing. */
export function withTodaysAim(grinder: Grinder, changes: readonly AimChange[]): Grinder {
  if (changes.length === 0) return grinder;
  const { doseG, yieldG, tempC, timeMinS, timeMaxS } = grinder.recipe;
  return {
    ...grinder,
    recipe: { ...grinder.recipe, ...aimAfter(grinder.recipe, changes) },
    before: { doseG, yieldG, tempC, timeMinS, timeMaxS },
  };
}

/** A grinder with another of its coffee's recipes in hand; unchanged where it is that one, or none of them. */
export function withRecipeInHand(grinder: Grinder, recipeId: string | null): Grinder {
  const chosen = grinder.others.find(({ recipe }) => recipe.recipeId === recipeId);
  if (!chosen) return grinder;
  const { basketG, dualWalled, levelG, fillStepG, before, ...main } = grinder;
  // The aim is the recipe's that was tasted; the others are poured as they are written.
  const recipe = before ? { ...main.recipe, ...before } : main.recipe;
  const rest = grinder.others.filter((other) => other !== chosen);
  return { ...main, ...chosen, others: [{ recipe, basketG, dualWalled, levelG, fillStepG }, ...rest] };
}

/** Every recipe of a grinder as it is written: what taste changed for the day is no version of it. */
const recipesOf = ({ recipe, before, others }: Grinder): RecipeVersion[] => [
  before ? { ...recipe, ...before } : recipe,
  ...others.map((other) => other.recipe),
];

/** What a bar's facts are heard with. */
export function memoryContextOf({ grinders, recipesNamed }: Pick<Bar, 'grinders' | 'recipesNamed'>): MemoryContext {
  const recipes = new Map(
    [...recipesNamed, ...grinders.flatMap(recipesOf)].map((recipe) => [recipe.id, targetOf(recipe)]),
  );
  return {
    grinders: new Map(grinders.map((grinder) => [grinder.id, grinderOf(grinder)])),
    recipeOf: (id) => recipes.get(id) ?? null,
  };
}
