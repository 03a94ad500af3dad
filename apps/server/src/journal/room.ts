import { roomOf } from '../kernel/room.ts';
import { journalEntities } from './entities.ts';
import { WhatHappens1799100000000 } from './migrations/1799100000000-what-happens.ts';
import { Air1799800000000 } from './migrations/1799800000000-air.ts';
import { Glasses1799800000001 } from './migrations/1799800000001-glasses.ts';
import { PagesOfTheJournal1799700000003 } from './migrations/1799700000003-pages-of-the-journal.ts';
import { WhatIsSeen1798200000003 } from './migrations/1798200000003-what-is-seen.ts';
import { AnnouncedTogether1799900000007 } from './migrations/1799900000007-announced-together.ts';
import { ToldByName1799900000006 } from './migrations/1799900000006-told-by-name.ts';
import { WhatTakesBack1799900000009 } from './migrations/1799900000009-what-takes-back.ts';
import { problem } from '../kernel/problems.ts';
import { deviceOf, tokenHash, tokenOf } from '../team/index.ts';
import { recordByName } from './byName.ts';
import { changesBefore } from './changes.ts';
import { journalEntry } from './entry.ts';
import { exportCsv, exportGrounds } from './export.ts';
import { keeper } from './keep.ts';
import { journalPage, recordFact } from './service.ts';

/** Facts, the journal of them, and the stream that tells of new ones. */
export const journalRoom = roomOf({
  name: 'journal',
  tables: journalEntities,
  migrations: [
    WhatIsSeen1798200000003,
    WhatHappens1799100000000,
    PagesOfTheJournal1799700000003,
    Air1799800000000,
    Glasses1799800000001,
    ToldByName1799900000006,
    AnnouncedTogether1799900000007,
    WhatTakesBack1799900000009,
  ],
  handlers: ({ db, live, effects }) => {
    const ways = { effects, keeps: keeper(db) };
    return {
      'POST /facts': async ({ session, body, res }) => {
        const { fact, created } = await recordFact(db, session, body, ways);
        if (created) live.wrote(fact);
        else res.status(200);
        return fact;
      },
      'POST /facts/by-name': async ({ req, body, res }) => {
        const tablet = await deviceOf(db, req);
        if (!tablet) throw problem('deviceUnknown');
        const { fact, created } = await recordByName(db, tablet, body, effects);
        if (created) live.wrote(fact);
        else res.status(200);
        return fact;
      },
      'GET /journal': ({ session, query }) => journalPage(db, session.site.id, query),
      'GET /facts/{id}': ({ session, params }) => journalEntry(db, session.site.id, params.id),
      'GET /journal/changes': ({ session, query }) => changesBefore(db, session.site.id, query.before),
      'GET /journal/shots.csv': ({ session }) => exportCsv(db, session.site.id, 'shots'),
      'GET /journal/moves.csv': ({ session }) => exportCsv(db, session.site.id, 'moves'),
      'GET /journal/tastings.csv': ({ session }) => exportCsv(db, session.site.id, 'tastings'),
      'GET /journal/grounds.csv': ({ session }) => exportGrounds(db, session.site.id),
      'GET /live': ({ session, req, res }) => {
        live.join({ siteId: session.site.id, sessionKey: tokenHash(tokenOf(req) ?? '') }, req, res);
        return undefined;
      },
    };
  },
});
