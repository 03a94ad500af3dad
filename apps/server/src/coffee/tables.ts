import { mustBeOurs, type SheetTable } from '../platform/sheets.ts';
import { BagEntity, CoffeeEntity } from './entities.ts';

export const coffeeTable: SheetTable<'coffee'> = {
  kind: 'coffee',
  entity: CoffeeEntity,
  check: (tx, siteId, { recipeId }) => mustBeOurs(tx, siteId, 'recipe', recipeId),
};

/** Bags arrive while the head barista is away: whoever takes them in writes them down. */
export const bagTable: SheetTable<'bag'> = {
  kind: 'bag',
  entity: BagEntity,
  openToAll: true,
  check: (tx, siteId, { coffeeId }) => mustBeOurs(tx, siteId, 'coffee', coffeeId),
};
