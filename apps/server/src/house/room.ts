import { roomOf } from '../kernel/room.ts';
import { sheetHandlers } from '../kernel/sheets.ts';
import { houseEntities } from './entities.ts';
import { findingsOf } from './findings.ts';
import { PoliciesByName1797600000000 } from './migrations/1797600000000-policies-by-name.ts';
import { LeversAndLimits1798200000000 } from './migrations/1798200000000-levers-and-limits.ts';
import { NamedNews1799900000002 } from './migrations/1799900000002-named-news.ts';
import { recipesInForce, todayAt } from './inForce.ts';
import { changePolicy, policyVersions } from './policies.ts';
import { recipeHistory, recipePage, writeRecipe } from './recipes.ts';
import { searchHouse } from './search.ts';
import { cafeTable, drinkTable } from './tables.ts';

/** Recipes, drinks, policies, the café, and what does not go together. */
export const houseRoom = roomOf({
  name: 'house',
  tables: houseEntities,
  migrations: [PoliciesByName1797600000000, LeversAndLimits1798200000000, NamedNews1799900000002],
  handlers: ({ db }) => ({
    'GET /house/policies': async ({ session }) => ({ versions: await policyVersions(db, session.site.id) }),
    'POST /house/policies': async ({ session, body }) => ({ versions: await changePolicy(db, session, body) }),
    'GET /house/recipes': ({ session, query }) => recipePage(db, session.site.id, query),
    'GET /house/recipes-in-force': async ({ session: { site } }) => ({
      recipes: await recipesInForce(db, site.id, await todayAt(db, site.id)),
    }),
    'GET /house/recipes/{recipeId}': ({ session, params }) => recipeHistory(db, session.site.id, params.recipeId),
    'POST /house/recipes/{recipeId}': ({ session, params, body }) => writeRecipe(db, session, params.recipeId, body),
    'GET /house/findings': async ({ session }) => ({ findings: await findingsOf(db, session.site.id) }),
    'GET /search': async ({ session, query }) => ({ hits: await searchHouse(db, session.site.id, query.q) }),
    ...sheetHandlers(db, drinkTable),
    ...sheetHandlers(db, cafeTable),
  }),
});
