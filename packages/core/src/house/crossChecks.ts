import { boilsAt, boilingPointC } from './boilingPoint.ts';

/** What the cross-checks read: the recipes in force, and the bar they are pulled on. Retired things are left out. */
export interface HouseInUse {
  altitudeM: number;
  baskets: readonly { id: string; name: string; minG: number; maxG: number }[];
  recipes: readonly {
    recipeId: string;
    name: string;
    doseG: number;
    basketId: string | null;
    tempC: number | null;
  }[];
  coffees: readonly { id: string; name: string; recipeId: string | null }[];
  groups: readonly { id: string; name: string; basketId: string | null }[];
  grinders: readonly { id: string; name: string; coffeeId: string | null }[];
}

/** What does not go together, and the numbers that show it. */
type Mismatch =
  | { kind: 'doseOverBasket' | 'doseUnderBasket'; doseG: number; minG: number; maxG: number }
  | { kind: 'noBasket' | 'basketGone' | 'noRecipe' | 'recipeGone' | 'noCoffee' | 'sameName' }
  | { kind: 'boils'; tempC: number; boilsAtC: number };

/** Something in the house that does not go together, as data: words and units are the reader's. */
export type Finding = Mismatch & {
  /** What to open to put it right, and what it is called. */
  on: { kind: 'recipe' | 'coffee' | 'grinder'; id: string };
  name: string;
};

/** Everything in the house that does not go together, recipes first. */
export function crossChecks(house: HouseInUse): Finding[] {
  return [
    ...house.recipes.flatMap((recipe) => [...basketFindings(recipe, house), ...boilFindings(recipe, house)]),
    ...house.coffees.flatMap((coffee) => coffeeFindings(coffee, house)),
    ...house.grinders.flatMap((grinder) => grinderFindings(grinder, house)),
  ];
}

type Recipe = HouseInUse['recipes'][number];

function basketFindings({ recipeId, name, doseG, basketId }: Recipe, { baskets }: HouseInUse): Finding[] {
  const found = { on: { kind: 'recipe' as const, id: recipeId }, name };
  if (basketId === null) return [{ kind: 'noBasket', ...found }];
  const basket = baskets.find(({ id }) => id === basketId);
  if (!basket) return [{ kind: 'basketGone', ...found }];
  const { minG, maxG } = basket;
  if (doseG > maxG) return [{ kind: 'doseOverBasket', doseG, minG, maxG, ...found }];
  return doseG < minG ? [{ kind: 'doseUnderBasket', doseG, minG, maxG, ...found }] : [];
}

function boilFindings({ recipeId, name, tempC }: Recipe, { altitudeM }: HouseInUse): Finding[] {
  if (tempC === null || !boilsAt(tempC, altitudeM)) return [];
  return [{ kind: 'boils', tempC, boilsAtC: boilingPointC(altitudeM), on: { kind: 'recipe', id: recipeId }, name }];
}

function coffeeFindings({ id, name, recipeId }: HouseInUse['coffees'][number], { recipes }: HouseInUse): Finding[] {
  const found = { on: { kind: 'coffee' as const, id }, name };
  if (recipeId === null) return [{ kind: 'noRecipe', ...found }];
  return recipes.some((recipe) => recipe.recipeId === recipeId) ? [] : [{ kind: 'recipeGone', ...found }];
}

function grinderFindings({ id, name, coffeeId }: HouseInUse['grinders'][number], { grinders }: HouseInUse): Finding[] {
  const found = { on: { kind: 'grinder' as const, id }, name };
  const alike = (other: string): boolean => other.trim().toLowerCase() === name.trim().toLowerCase();
  const twin = grinders.some((other) => other.id < id && alike(other.name));
  return [
    ...(coffeeId === null ? [{ kind: 'noCoffee' as const, ...found }] : []),
    ...(twin ? [{ kind: 'sameName' as const, ...found }] : []),
  ];
}
