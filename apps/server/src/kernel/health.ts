import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { problem } from './problems.ts';

/** /healthz: the process runs. /readyz: it can also reach its database. */
export function healthRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/healthz', (_req, res) => {
    res.json({ status: 'ok' });
  });
  router.get('/readyz', async (_req, res) => {
    try {
      await db.query('SELECT 1');
    } catch (error) {
      throw problem('notReady', { cause: error });
    }
    res.json({ status: 'ready' });
  });
  return router;
}
