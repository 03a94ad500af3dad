import { benchSchema, type Bench } from '../calibration.ts';
import { readAs } from '../common.ts';
import { routesOf } from '../route.ts';

/** Every way to ask the room `calibration`. */
export const calibrationRoutes = routesOf({
  'GET /benches/{grinderId}': {
    says: 'The facts that a bench needs.',
    who: 'signedIn',
    answer: readAs<Bench>(benchSchema),
  },
});
