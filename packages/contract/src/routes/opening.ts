import { openingHistorySchema } from '../opening.ts';
import { routesOf } from '../route.ts';

export const openingRoutes = routesOf({
  'GET /opening/history': {
    says: 'How long the jobs of earlier openings took.',
    who: 'signedIn',
    answer: openingHistorySchema,
  },
});
