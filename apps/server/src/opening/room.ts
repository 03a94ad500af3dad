import { roomOf } from '../kernel/room.ts';
import { openingHistory } from './history.ts';

/** What earlier openings took. */
export const openingRoom = roomOf({
  name: 'opening',
  tables: [],
  handlers: ({ db }) => ({
    'GET /opening/history': ({ session }) => openingHistory(db, session.site.id),
  }),
});
