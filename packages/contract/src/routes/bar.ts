import { barSchema, learnedSchema, planChangeSchema, upkeepSchema, type Bar } from '../bar.ts';
import { readAs } from '../common.ts';
import { routesOf } from '../route.ts';
import { listedRoutes } from './sheets.ts';

/** Every way to ask the room `bar`. */
export const barRoutes = {
  ...routesOf({
    'GET /bar': { says: 'The bar as it stands.', who: 'signedIn', answer: readAs<Bar>(barSchema) },
    'PUT /bar/plan': {
      says: 'The bar as it now stands. The whole plan is sent, as somebody moved it; safe to repeat.',
      who: 'headOrOffice',
      body: planChangeSchema,
      answer: readAs<Bar>(barSchema),
    },
    'GET /bar/upkeep': { says: 'What is kept up, and when it was last done.', who: 'signedIn', answer: upkeepSchema },
    'GET /bar/learned': { says: 'What the shots taught.', who: 'signedIn', answer: learnedSchema },
  }),
  ...listedRoutes('machine'),
  ...listedRoutes('group'),
  ...listedRoutes('grinder'),
  ...listedRoutes('basket'),
  ...listedRoutes('fixture'),
  ...listedRoutes('counter'),
};
