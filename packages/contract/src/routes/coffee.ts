import { bagSchema, bagsQuerySchema, coffeeUseSchema, stockSchema } from '../coffee.ts';
import { routesOf } from '../route.ts';
import { pageOf } from '../sheet.ts';
import { listedRoutes, sheetRoutes } from './sheets.ts';

/** Every way to ask the room `coffee`. */
export const coffeeRoutes = {
  ...routesOf({
    'GET /coffee/stock': {
      says: 'Coffees, and the bags that are not used up.',
      who: 'signedIn',
      answer: stockSchema,
    },
    'GET /coffee/use': { says: 'Calibration against served.', who: 'signedIn', answer: coffeeUseSchema },
    'GET /coffee/bags': {
      says: 'A page of bags.',
      who: 'signedIn',
      query: bagsQuerySchema,
      answer: pageOf(bagSchema),
    },
    'GET /coffee/bags/{id}': { says: 'One bag.', who: 'signedIn', answer: bagSchema },
  }),
  ...listedRoutes('coffee'),
  // Bags arrive while the head barista is away: whoever takes them in writes them down.
  ...sheetRoutes('bag', 'signedIn'),
};
