import { entityId } from '@tempera/contract/common';
import { recipeChangeSchema, recipesQuerySchema } from '@tempera/contract/house';
import { policyChangeSchema, type Policies } from '@tempera/contract/policy';
import { searchQuerySchema, type Search } from '@tempera/contract/search';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { parsed } from '../platform/problems.ts';
import { sheetRoutes } from '../platform/sheets.ts';
import { sessionOf } from '../team/index.ts';
import { findingsOf } from './findings.ts';
import { recipesInForce, todayAt } from './inForce.ts';
import { recipeHistory, recipePage, writeRecipe } from './recipes.ts';
import { searchHouse } from './search.ts';
import { changePolicy, policyVersions } from './service.ts';
import { cafeTable, drinkTable } from './tables.ts';

export function houseRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/house/policies', async (req, res) => {
    res.json({ versions: await policyVersions(db, sessionOf(req).site.id) } satisfies Policies);
  });
  router.post('/house/policies', async (req, res) => {
    const versions = await changePolicy(db, sessionOf(req), parsed(policyChangeSchema, req.body));
    res.status(201).json({ versions } satisfies Policies);
  });
  router.get('/house/recipes', async (req, res) => {
    res.json(await recipePage(db, sessionOf(req).site.id, parsed(recipesQuerySchema, req.query)));
  });
  router.get('/house/recipes-in-force', async (req, res) => {
    const siteId = sessionOf(req).site.id;
    res.json({ recipes: await recipesInForce(db, siteId, await todayAt(db, siteId)) });
  });
  router.get('/house/recipes/:recipeId', async (req, res) => {
    res.json(await recipeHistory(db, sessionOf(req).site.id, parsed(entityId, req.params.recipeId)));
  });
  router.post('/house/recipes/:recipeId', async (req, res) => {
    const change = parsed(recipeChangeSchema, req.body);
    res.status(201).json(await writeRecipe(db, sessionOf(req), parsed(entityId, req.params.recipeId), change));
  });
  router.get('/house/findings', async (req, res) => {
    res.json({ findings: await findingsOf(db, sessionOf(req).site.id) });
  });
  router.get('/search', async (req, res) => {
    const { q } = parsed(searchQuerySchema, req.query);
    res.json({ hits: await searchHouse(db, sessionOf(req).site.id, q) } satisfies Search);
  });
  router.use(sheetRoutes(db, drinkTable));
  router.use(sheetRoutes(db, cafeTable));
  return router;
}
