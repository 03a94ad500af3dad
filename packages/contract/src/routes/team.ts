import { routesOf } from '../route.ts';
import { newCafeSchema, sessionSchema, signInSchema, unitsSchema, welcomeSchema } from '../team.ts';

/** Every way to ask the room `team`. */
export const teamRoutes = routesOf({
  'GET /welcome': { says: 'Cafés, and the names to sign in with.', who: 'anyone', answer: welcomeSchema },
  // Nobody is an answer, not a failure: a page that was just opened asks this first.
  'GET /session': {
    says: 'Who is signed in, and where; null: nobody.',
    who: 'anyone',
    answer: sessionSchema.nullable(),
  },
  'POST /session': {
    says: 'Signed in; the session is in an http-only cookie.',
    who: 'anyone',
    body: signInSchema,
    answer: sessionSchema,
    status: 201,
    slowly: true,
  },
  'DELETE /session': { says: 'Signed out.', who: 'anyone', answer: 'nothing' },
  'PUT /session/units': {
    says: 'What this person reads and types in from now on.',
    who: 'signedIn',
    body: unitsSchema,
    answer: sessionSchema,
  },
  'POST /cafe': {
    says: 'The first café of an empty server is set up; its head barista is signed in.',
    who: 'anyone',
    body: newCafeSchema,
    answer: sessionSchema,
    status: 201,
    slowly: true,
  },
});
