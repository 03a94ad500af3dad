import { planChangeSchema } from '@tempera/contract/bar';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { parsed } from '../platform/problems.ts';
import { sheetRoutes } from '../platform/sheets.ts';
import { sessionOf } from '../team/index.ts';
import { learnedOf } from './learned.ts';
import { changePlan } from './plan.ts';
import { readBar } from './service.ts';
import { basketTable, counterTable, fixtureTable, grinderTable, groupTable, machineTable } from './tables.ts';

export function barRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/bar', async (req, res) => {
    res.json(await readBar(db, sessionOf(req).site.id));
  });
  router.put('/bar/plan', async (req, res) => {
    const session = sessionOf(req);
    await changePlan(db, session, parsed(planChangeSchema, req.body));
    res.json(await readBar(db, session.site.id));
  });
  router.get('/bar/learned', async (req, res) => {
    res.json(await learnedOf(db, sessionOf(req).site.id));
  });
  router.use(sheetRoutes(db, machineTable));
  router.use(sheetRoutes(db, groupTable));
  router.use(sheetRoutes(db, grinderTable));
  router.use(sheetRoutes(db, basketTable));
  router.use(sheetRoutes(db, fixtureTable));
  router.use(sheetRoutes(db, counterTable));
  return router;
}
