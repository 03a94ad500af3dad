import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { sessionOf } from '../team/index.ts';
import { openingHistory } from './history.ts';

export function openingRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/opening/history', async (req, res) => {
    res.json(await openingHistory(db, sessionOf(req).site.id));
  });
  return router;
}
