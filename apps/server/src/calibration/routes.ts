import { entityId } from '@tempera/contract/common';
import type { Bench } from '@tempera/contract/calibration';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { benchFacts, dayStartMs } from '../journal/index.ts';
import { sessionOf } from '../team/index.ts';
import { parsed, problem } from '../platform/problems.ts';

export function calibrationRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/benches/:grinderId', async (req, res) => {
    const siteId = sessionOf(req).site.id;
    const grinderId = parsed(entityId, req.params.grinderId);
    const own = await db.query<object[]>('SELECT 1 FROM grinder WHERE id = $1 AND site_id = $2', [grinderId, siteId]);
    if (own.length === 0) throw problem('unknownStation');
    const fromMs = await dayStartMs(db, siteId);
    res.json({ facts: await benchFacts(db, siteId, { grinderId, fromMs, traces: true }) } satisfies Bench);
  });
  return router;
}
