import { journalQuerySchema, newFactSchema, newStepSchema, type NewEntry } from '@tempera/contract/journal';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { sessionOf } from '../team/index.ts';
import { parsed } from '../platform/problems.ts';
import { exportCsv, exportGrounds } from './export.ts';
import { journalPage, recordFact } from './service.ts';

/** Judged by the schema of its kind, so that a refusal is about its own fields. */
function entryOf(body: unknown): NewEntry {
  const step = typeof body === 'object' && body !== null && 'kind' in body && body.kind === 'step';
  return parsed(step ? newStepSchema : newFactSchema, body) as NewEntry;
}

export function journalRoutes(db: DataSource): Router {
  const router = Router();
  router.post('/facts', async (req, res) => {
    const { fact, created } = await recordFact(db, sessionOf(req), entryOf(req.body));
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
  router.get('/journal/grounds.csv', async (req, res) => {
    const csv = await exportGrounds(db, sessionOf(req).site.id);
    res.attachment('grounds.csv').type('text/csv');
    csv.pipe(res);
  });
  return router;
}
