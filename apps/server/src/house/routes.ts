import { policyChangeSchema, type Policies } from '@tempera/contract/policy';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { parsed } from '../platform/problems.ts';
import { sessionOf } from '../team/index.ts';
import { changePolicy, policyVersions } from './service.ts';

export function houseRoutes(db: DataSource): Router {
  const router = Router();
  router.get('/house/policies', async (req, res) => {
    res.json({ versions: await policyVersions(db, sessionOf(req).site.id) } satisfies Policies);
  });
  router.post('/house/policies', async (req, res) => {
    const versions = await changePolicy(db, sessionOf(req), parsed(policyChangeSchema, req.body));
    res.status(201).json({ versions } satisfies Policies);
  });
  return router;
}
