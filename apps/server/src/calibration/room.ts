import { benchFacts, dayStartMs } from '../journal/index.ts';
import { problem } from '../kernel/problems.ts';
import { roomOf } from '../kernel/room.ts';
import { isOurs } from '../kernel/sheets.ts';
import { calibrationEntities } from './entities.ts';

/** The facts of one bench. */
export const calibrationRoom = roomOf({
  name: 'calibration',
  tables: calibrationEntities,
  handlers: ({ db }) => ({
    'GET /benches/{grinderId}': async ({ session, params: { grinderId } }) => {
      const siteId = session.site.id;
      if (!(await isOurs(db.manager, siteId, 'grinder', grinderId))) throw problem('unknownStation');
      const fromMs = await dayStartMs(db, siteId);
      return { facts: await benchFacts(db, siteId, { grinderId, fromMs, traces: true }) };
    },
  }),
});
