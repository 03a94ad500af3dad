import type { SheetTable } from '../kernel/sheets.ts';
import { SiteEntity } from '../team/index.ts';
import { DrinkEntity } from './entities.ts';
import { recipeMustBeOurs } from './recipes.ts';

export const drinkTable: SheetTable<'drink'> = {
  kind: 'drink',
  entity: DrinkEntity,
  check: (tx, siteId, { recipeId }) => recipeMustBeOurs(tx, siteId, recipeId),
};

/** The café is its own site, so its row carries no other. */
export const cafeTable: SheetTable<'cafe'> = { kind: 'cafe', entity: SiteEntity };
