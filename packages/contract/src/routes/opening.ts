import { openingHistorySchema } from '../opening.ts';
import { routesOf } from '../route.ts';

/** Every way to ask the room `opening`. */
export const openingRoutes = routesOf({
  'GET /opening/history': {
    says: 'How long the jobs of earlier openings took.',
    who: 'signedIn',
    answer: openingHistorySchema,
  },
});
