import { roomOf } from '../kernel/room.ts';
import { dayEntities } from './entities.ts';
import { historyOf, summariesOf } from './history.ts';
import { DaysInNumbers1799900000005 } from './migrations/1799900000005-days-in-numbers.ts';
import { mornings } from './mornings.ts';

/** The served day over time. */
export const dayRoom = roomOf({
  name: 'day',
  tables: dayEntities,
  migrations: [DaysInNumbers1799900000005],
  handlers: ({ db }) => ({
    'GET /day/history': ({ session, query }) => historyOf(db, session, query),
    'GET /day/summaries': async ({ session, query }) => ({ days: await summariesOf(db, session, query) }),
    'GET /day/mornings': async ({ session, query }) => ({ mornings: await mornings(db, session, query.days) }),
  }),
});
