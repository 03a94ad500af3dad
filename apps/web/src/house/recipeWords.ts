import type { Grinder } from '@tempera/contract/bar';
import type { Recipe, RecipeVersion } from '@tempera/contract/house';
import { pumpWindowS, type Units } from '@tempera/core/house';
import { bars, cupWord, degrees, grams, ratio } from '../kernel/format.ts';

const startWord: Record<Recipe['timeFrom'], string> = {
  pump: 'from the pump',
  firstDrop: 'from the first drop',
  soakEnd: 'from the end of the soak',
  pull: 'from the first pull',
};

/** "25–30 s from the pump"; where time starts later, what that is on the bench's clock. */
export function timeWord(recipe: Recipe): string {
  const own = `${recipe.timeMinS}–${recipe.timeMaxS} s ${startWord[recipe.timeFrom]}`;
  if (recipe.timeFrom === 'pump' || recipe.timeFrom === 'pull') return own;
  const { min, max } = pumpWindowS(recipe);
  return `${own}, ${min}–${max} s on the bench`;
}

/** "18.0 g in, 36.0 g out, 1 : 2.00". */
export const inOutWord = ({ doseG, yieldG }: Recipe, units?: Units): string =>
  `${grams(doseG, units)} in, ${grams(yieldG, units)} out, ${ratio(yieldG, doseG)}`;

/** "Changed for taste today: the recipe asks for 18.0 g in, 36.0 g out, 25–30 s, 93.0 °C". */
export function aimWord(before: NonNullable<Grinder['before']>, units?: Units): string {
  const { tempC } = before;
  const asks = [cupWord(before, units), ...(tempC === null ? [] : [degrees(tempC, 1, units)])];
  return `Changed for taste today: the recipe asks for ${asks.join(', ')}`;
}

/** What stands on a recipe's card, one line each. */
export function cardLines(recipe: Recipe, basketName: string | null): { what: string; says: string }[] {
  const { soakS, pauseS, pressureBar, tempC } = recipe;
  return [
    {
      what: 'Dose',
      says: `${grams(recipe.doseG)}, ${recipe.doseNoMore ? 'up to' : 'give or take'} ${grams(recipe.doseToleranceG)}${recipe.doseNoMore ? ' less, never more' : ''}`,
    },
    { what: 'Basket', says: basketName ?? 'none named' },
    {
      what: 'Yield',
      says: `${grams(recipe.yieldG)}, give or take ${grams(recipe.yieldToleranceG)} (${ratio(recipe.yieldG, recipe.doseG)})`,
    },
    { what: 'Time', says: timeWord(recipe) },
    { what: 'First drop', says: `${recipe.firstDropMinS}–${recipe.firstDropMaxS} s` },
    ...(soakS + pauseS > 0 ? [{ what: 'Soak', says: `${soakS} s, then a pause of ${pauseS} s` }] : []),
    ...(recipe.tampG === null ? [] : [{ what: 'Tamp', says: `a push of ${Math.round(recipe.tampG)} g on the scale` }]),
    { what: 'Pressure', says: pressureBar === null ? 'as it is' : bars(pressureBar) },
    ...(recipe.pressureShape === '' ? [] : [{ what: 'Its shape', says: recipe.pressureShape }]),
    { what: 'Temperature', says: tempC === null ? 'as it is' : degrees(tempC) },
  ];
}

/** "Version 2, from Thu 5 Nov, Ines: thin in milk". */
export function versionWord({ version, approvedBy, reason }: RecipeVersion, from: string): string {
  const who = [from, approvedBy].filter(Boolean).join(', ');
  return `Version ${version}, ${who}${reason ? `: ${reason}` : ''}`;
}
