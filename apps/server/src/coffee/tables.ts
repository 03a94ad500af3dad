import { recipeMustBeOurs } from '../house/index.ts';
import { mustBeOurs, type SheetTable } from '../kernel/sheets.ts';
import { BagEntity, CoffeeEntity } from './entities.ts';

export const coffeeTable: SheetTable<'coffee'> = {
  kind: 'coffee',
  entity: CoffeeEntity,
  check: (tx, siteId, { recipeId }) => recipeMustBeOurs(tx, siteId, recipeId),
};

export const bagTable: SheetTable<'bag'> = {
  kind: 'bag',
  entity: BagEntity,
  check: (tx, siteId, { coffeeId }) => mustBeOurs(tx, siteId, 'coffee', coffeeId),
};
