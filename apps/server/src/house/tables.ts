import { sentences } from '@tempera/contract/sentences';
import { problem, ProblemError } from '../kernel/problems.ts';
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
export const cafeTable: SheetTable<'cafe'> = {
  kind: 'cafe',
  entity: SiteEntity,
  check: (_tx, siteId, _sheet, { sheetId, retired }) => {
    // A café begins by being set up, and by nothing else.
    if (sheetId !== siteId) throw problem('notFound');
    if (retired) throw new ProblemError('invalid', sentences.cafeStays);
    return Promise.resolve();
  },
};
