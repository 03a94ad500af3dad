import { journalQuerySchema, newFactSchema, type NewFact } from '@tempera/contract/journal';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { sessionOf } from '../team/index.ts';
import { parsed } from '../platform/problems.ts';
import { exportCsv } from './export.ts';
import { journalPage, recordFact } from './service.ts';

export function journalRoutes(db: DataSource): Router {
  const router = Router();
  router.post('/facts', async (req, res) => {
    const { fact, created } = await recordFact(db, sessionOf(req), parsed(newFactSchema, req.body) as NewFact);
    res.status(created ? 201 : 200).json(fact);
  });
  router.get('/journal', async (req, res) => {
    res.json(await journalPage(db, sessionOf(req).site.id, parsed(journalQuerySchema, req.query)));
  });
  for (const [file, kind] of [
    ['shots', 'shot'],
    ['moves', 'collarMove'],
  ] as const) {
    router.get(`/journal/${file}.csv`, async (req, res) => {
      const csv = await exportCsv(db, sessionOf(req).site.id, kind);
      res.attachment(`${file}.csv`).type('text/csv');
      csv.pipe(res);
    });
  }
  return router;
}
