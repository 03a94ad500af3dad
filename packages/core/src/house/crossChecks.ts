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

type FindingKind =
  | 'doseOverBasket'
  | 'doseUnderBasket'
  | 'noBasket'
  | 'basketGone'
  | 'noRecipe'
  | 'recipeGone'
  | 'noCoffee'
  | 'sameName'
  | 'boils';

/** Something in the house that does not go together. */
export interface Finding {
  kind: FindingKind;
  /** What to open to put it right. */
  on: { kind: 'recipe' | 'coffee' | 'grinder'; id: string };
  says: string;
}

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
  const on = { kind: 'recipe' as const, id: recipeId };
  if (basketId === null)
    return [{ kind: 'noBasket', on, says: `${name} names no basket: choose the one it is made for.` }];
  const basket = baskets.find(({ id }) => id === basketId);
  if (!basket) return [{ kind: 'basketGone', on, says: `${name} names a basket that is no longer in use.` }];
  if (doseG > basket.maxG) {
    const says = `${name} asks for ${grams(doseG)} in a basket for ${grams(basket.minG)} to ${grams(basket.maxG)}: it would touch the screen.`;
    return [{ kind: 'doseOverBasket', on, says }];
  }
  if (doseG < basket.minG) {
    const says = `${name} asks for ${grams(doseG)} in a basket for ${grams(basket.minG)} to ${grams(basket.maxG)}: the bed would lie loose.`;
    return [{ kind: 'doseUnderBasket', on, says }];
  }
  return [];
}

function boilFindings({ recipeId, name, tempC }: Recipe, { altitudeM }: HouseInUse): Finding[] {
  if (tempC === null || !boilsAt(tempC, altitudeM)) return [];
  const says = `${name} asks for ${tempC.toFixed(1)} °C; water boils at ${boilingPointC(altitudeM).toFixed(1)} °C here.`;
  return [{ kind: 'boils', on: { kind: 'recipe', id: recipeId }, says }];
}

function coffeeFindings({ id, name, recipeId }: HouseInUse['coffees'][number], { recipes }: HouseInUse): Finding[] {
  const on = { kind: 'coffee' as const, id };
  if (recipeId === null) return [{ kind: 'noRecipe', on, says: `${name} has no recipe: it cannot be dialled in.` }];
  const known = recipes.some((recipe) => recipe.recipeId === recipeId);
  return known ? [] : [{ kind: 'recipeGone', on, says: `The recipe of ${name} is no longer in use.` }];
}

function grinderFindings(grinder: HouseInUse['grinders'][number], { grinders }: HouseInUse): Finding[] {
  const on = { kind: 'grinder' as const, id: grinder.id };
  const twin = grinders.find(
    (other) => other.id < grinder.id && other.name.trim().toLowerCase() === grinder.name.trim().toLowerCase(),
  );
  return [
    ...(grinder.coffeeId === null
      ? [{ kind: 'noCoffee' as const, on, says: `${grinder.name} holds no coffee yet: put a bag in.` }]
      : []),
    ...(twin ? [{ kind: 'sameName' as const, on, says: `Two grinders are called ${grinder.name}.` }] : []),
  ];
}

const grams = (g: number): string => `${Number(g.toFixed(1))} g`;
