import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { sessionOf } from '../team/index.ts';
import { readBar } from './service.ts';

export function barRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/bar', async (req, res) => {
    res.json(await readBar(db, sessionOf(req).site.id));
  });
  return router;
}
