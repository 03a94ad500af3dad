import { roomOf } from '../kernel/room.ts';
import { historyOf } from './history.ts';
import { mornings } from './mornings.ts';

/** The served day over time. */
export const dayRoom = roomOf({
  name: 'day',
  tables: [],
  handlers: ({ db }) => ({
    'GET /day/history': ({ session, query }) => historyOf(db, session, query),
    'GET /day/mornings': async ({ session, query }) => ({ mornings: await mornings(db, session, query.days) }),
  }),
});
