import { changesQuerySchema, changesSchema } from '../changes.ts';
import { readAs } from '../common.ts';
import {
  journalEntrySchema,
  journalPageSchema,
  journalQuerySchema,
  newEntrySchema,
  recordedFactSchema,
  type RecordedEntry,
} from '../journal.ts';
import { routesOf } from '../route.ts';

/** Every way to ask the room `journal`. */
export const journalRoutes = routesOf({
  'POST /facts': {
    says: 'The fact as it is kept, without a trace: 201 now, 200 already before. Its id is made by the device that saw it; safe to repeat.',
    who: 'signedIn',
    body: newEntrySchema,
    answer: readAs<RecordedEntry>(recordedFactSchema),
    status: 201,
  },
  'POST /facts/by-name': {
    says: 'The same from a tablet of the house, by the name that the entry carries alone: plain work only, unconfirmed until its author sends it too.',
    who: 'anyone',
    body: newEntrySchema,
    answer: readAs<RecordedEntry>(recordedFactSchema),
    status: 201,
  },
  'GET /journal': {
    says: 'A page of the journal, newest first.',
    who: 'signedIn',
    query: journalQuerySchema,
    answer: journalPageSchema,
  },
  'GET /facts/{id}': {
    says: 'One entry with its trace, what corrects it, and what it was aimed at.',
    who: 'signedIn',
    answer: journalEntrySchema,
  },
  'GET /journal/changes': {
    says: 'What was changed of the house, and what happened at its doors, newest first.',
    who: 'headOrOffice',
    query: changesQuerySchema,
    answer: changesSchema,
  },
  'GET /journal/shots.csv': {
    says: 'All shots as they now stand, oldest first.',
    who: 'signedIn',
    answer: 'csv',
  },
  'GET /journal/moves.csv': {
    says: 'All collar moves as they now stand, oldest first.',
    who: 'signedIn',
    answer: 'csv',
  },
  'GET /journal/tastings.csv': {
    says: 'All tastings with their scores as they now stand, oldest first.',
    who: 'signedIn',
    answer: 'csv',
  },
  'GET /journal/grounds.csv': {
    says: 'All ground coffee that facts tell of, with where it went, oldest first.',
    who: 'signedIn',
    answer: 'csv',
  },
  'GET /live': {
    says: 'Server-sent events: `joined` says when the last news was, `fact` carries a RecordedFact, `changed` names what else was changed, `resync` asks to read everything again.',
    who: 'signedIn',
    answer: 'events',
  },
});
