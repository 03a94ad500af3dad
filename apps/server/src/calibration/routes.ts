import { entityId } from '@tempera/contract/common';
import type { Bench } from '@tempera/contract/calibration';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { GrinderEntity } from '../bar/index.ts';
import { benchFacts } from '../journal/index.ts';
import { sessionOf } from '../team/index.ts';
import { parsed, problem } from '../platform/problems.ts';

export function calibrationRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/benches/:grinderId', async (req, res) => {
    const siteId = sessionOf(req).site.id;
    const grinderId = parsed(entityId, req.params.grinderId);
    if (!(await db.getRepository(GrinderEntity).existsBy({ id: grinderId, siteId }))) throw problem('unknownStation');
    res.json({ facts: await benchFacts(db, siteId, grinderId, true) } satisfies Bench);
  });
  return router;
}
