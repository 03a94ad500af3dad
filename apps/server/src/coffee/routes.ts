import { bagsQuerySchema } from '@tempera/contract/coffee';
import { entityId } from '@tempera/contract/common';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { parsed, problem } from '../platform/problems.ts';
import { sheetRoutes } from '../platform/sheets.ts';
import { sessionOf } from '../team/index.ts';
import { bagPage, oneBag, readStock } from './bags.ts';
import { bagTable, coffeeTable } from './tables.ts';
import { coffeeUse } from './use.ts';

export function coffeeRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/coffee/stock', async (req, res) => {
    res.json(await readStock(db, sessionOf(req).site.id));
  });
  router.get('/coffee/use', async (req, res) => {
    res.json(await coffeeUse(db, sessionOf(req).site.id));
  });
  // Bags are many: a page at a time instead of all of them.
  router.get('/coffee/bags', async (req, res) => {
    res.json(await bagPage(db, sessionOf(req).site.id, parsed(bagsQuerySchema, req.query)));
  });
  router.get('/coffee/bags/:id', async (req, res) => {
    const bag = await oneBag(db, sessionOf(req).site.id, parsed(entityId, req.params.id));
    if (!bag) throw problem('notFound');
    res.json(bag);
  });
  router.use(sheetRoutes(db, coffeeTable));
  router.use(sheetRoutes(db, bagTable));
  return router;
}
