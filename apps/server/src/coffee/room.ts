import { problem } from '../kernel/problems.ts';
import { roomOf } from '../kernel/room.ts';
import { sheetHandlers, writingHandlers } from '../kernel/sheets.ts';
import { bagPage, oneBag, readStock } from './bags.ts';
import { SeveralRecipes1798200000001 } from './migrations/1798200000001-several-recipes.ts';
import { BagsOfAGrinder1799800000002 } from './migrations/1799800000002-bags-of-a-grinder.ts';
import { BagsInUse1799700000004 } from './migrations/1799700000004-bags-in-use.ts';
import { Portions1799700000000 } from './migrations/1799700000000-portions.ts';
import { RoastAndOpenHours1799100000001 } from './migrations/1799100000001-roast-and-open-hours.ts';
import { coffeeEffects } from './effects.ts';
import { coffeeEntities } from './entities.ts';
import { bagTable, coffeeTable } from './tables.ts';
import { coffeeUse } from './use.ts';

/** Coffees, bags and what was used. */
export const coffeeRoom = roomOf({
  name: 'coffee',
  tables: coffeeEntities,
  migrations: [
    SeveralRecipes1798200000001,
    RoastAndOpenHours1799100000001,
    Portions1799700000000,
    BagsInUse1799700000004,
    BagsOfAGrinder1799800000002,
  ],
  effects: coffeeEffects,
  handlers: ({ db }) => ({
    'GET /coffee/stock': ({ session }) => readStock(db, session.site.id),
    'GET /coffee/use': ({ session }) => coffeeUse(db, session.site.id),
    'GET /coffee/bags': ({ session, query }) => bagPage(db, session.site.id, query),
    'GET /coffee/bags/{id}': async ({ session, params }) => {
      const bag = await oneBag(db, session.site.id, params.id);
      if (!bag) throw problem('notFound');
      return bag;
    },
    ...sheetHandlers(db, coffeeTable),
    ...writingHandlers(db, bagTable),
  }),
});
