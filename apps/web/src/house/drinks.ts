import type { DrinkSheet, RecipeVersion } from '@tempera/contract/house';
import type { Bar } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import {
  drinkCard,
  pumpWindowS,
  type DrinkCard,
  type PacedDrink,
  type PaceStations,
  type Station,
} from '@tempera/core/house';

export interface KnownDrink {
  id: string;
  drink: DrinkSheet;
  recipe: RecipeVersion;
  card: DrinkCard;
}

/** Drinks in the order of the card, each with the recipe in force; those whose recipe is out of use are left out. */
export function knownDrinks(sheets: readonly Kept<DrinkSheet>[], recipes: readonly RecipeVersion[]): KnownDrink[] {
  return sheets
    .filter(({ retired }) => !retired)
    .toSorted((a, b) => a.sheet.position - b.sheet.position || a.sheet.name.localeCompare(b.sheet.name))
    .flatMap(({ id, sheet }) => {
      const recipe = recipes.find(({ recipeId }) => recipeId === sheet.recipeId);
      return recipe ? [{ id, drink: sheet, recipe, card: drinkCard(sheet, recipe) }] : [];
    });
}

/** A drink as the pace reckons it. */
export function pacedDrink({ drink, recipe }: KnownDrink, bar: Bar): PacedDrink {
  const grinder = bar.grinders.find((one) => one.recipe.recipeId === recipe.recipeId);
  return { ...drink, recipe: { ...recipe, timeS: pumpWindowS(recipe) }, rateGps: grinder?.rateGps ?? null };
}

/** A steam wand for each machine that has a milk station to serve; at least one where milk is poured. */
const WANDS_PER_MACHINE = 1;

/** What the bar has to make drinks with. */
export function stationsOf(bar: Bar, people: number): PaceStations {
  return {
    groups: bar.machines.reduce((sum, { groups }) => sum + groups.length, 0),
    grinders: bar.grinders.length,
    wands: Math.max(1, bar.machines.length * WANDS_PER_MACHINE),
    people,
  };
}

export const stationWord: Record<Station, string> = {
  groups: 'the group heads',
  grinders: 'the grinders',
  wands: 'the steam wands',
  people: 'the hands',
};
