import {
  grinderHistorySchema,
  historyQuerySchema,
  morningsQuerySchema,
  morningsSchema,
  summariesQuerySchema,
  summariesSchema,
} from '../day.ts';
import { routesOf } from '../route.ts';

/** Every way to ask the room `day`. */
export const dayRoutes = routesOf({
  'GET /day/history': {
    says: 'A grinder over time: its shots, what happened, and where their spread comes from.',
    who: 'signedIn',
    query: historyQuerySchema,
    answer: grinderHistorySchema,
  },
  'GET /day/summaries': {
    says: 'A grinder over years: its days in numbers.',
    who: 'signedIn',
    query: summariesQuerySchema,
    answer: summariesSchema,
  },
  'GET /day/mornings': {
    says: 'Openings that were signed for: when they began, when the bar was ready, when the doors were to open.',
    who: 'signedIn',
    query: morningsQuerySchema,
    answer: morningsSchema,
  },
});
