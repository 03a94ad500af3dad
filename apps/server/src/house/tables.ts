import { mustBeOurs, type SheetTable } from '../platform/sheets.ts';
import { SiteEntity } from '../team/index.ts';
import { DrinkEntity } from './entities.ts';

export const drinkTable: SheetTable<'drink'> = {
  kind: 'drink',
  entity: DrinkEntity,
  check: (tx, siteId, { recipeId }) => mustBeOurs(tx, siteId, 'recipe', recipeId),
};

/** The café is its own site, so its row carries no other. */
export const cafeTable: SheetTable<'cafe'> = { kind: 'cafe', entity: SiteEntity };
