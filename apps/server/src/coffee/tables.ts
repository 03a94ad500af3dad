import { recipeMustBeOurs } from '../house/index.ts';
import { mustBeOurs, type SheetTable } from '../kernel/sheets.ts';
import { BagEntity, CoffeeEntity } from './entities.ts';

export const coffeeTable: SheetTable<'coffee'> = {
  kind: 'coffee',
  entity: CoffeeEntity,
  check: async (tx, siteId, { recipeId, moreRecipes }) => {
    await recipeMustBeOurs(tx, siteId, recipeId);
    for (const other of moreRecipes) await recipeMustBeOurs(tx, siteId, other.recipeId);
  },
};

export const bagTable: SheetTable<'bag'> = {
  kind: 'bag',
  entity: BagEntity,
  check: async (tx, siteId, { coffeeId, portionOf }) => {
    await mustBeOurs(tx, siteId, 'coffee', coffeeId);
    await mustBeOurs(tx, siteId, 'bag', portionOf);
  },
};
