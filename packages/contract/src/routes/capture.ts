import { bridgeReadingsSchema } from '../readings.ts';
import { routesOf } from '../route.ts';

/** Every way to ask the room `capture`. */
export const captureRoutes = routesOf({
  // A bridge has nobody who could sign in: it is known by the key it was enrolled with, as a tablet is.
  'POST /readings': {
    says: 'An enrolled bridge hands on what its devices tell; every open page of the café hears it, and nothing is kept.',
    who: 'anyone',
    body: bridgeReadingsSchema,
    answer: 'nothing',
  },
});
