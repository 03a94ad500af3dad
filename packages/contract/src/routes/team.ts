import { routesOf } from '../route.ts';
import {
  accessSchema,
  firstPinSchema,
  giveYesSchema,
  handedCodeSchema,
  newCafeSchema,
  newPinSchema,
  ownSessionsSchema,
  sessionSchema,
  signInSchema,
  unitsSchema,
  welcomeSchema,
  yesSchema,
} from '../team.ts';
import { listedRoutes } from './sheets.ts';

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
  'POST /session/first': {
    says: 'A first PIN is set by a one-time code; signed in with it.',
    who: 'anyone',
    body: firstPinSchema,
    answer: sessionSchema,
    status: 201,
    slowly: true,
  },
  'PUT /session/pin': {
    says: 'Another PIN of one’s own; every other session of this person ends.',
    who: 'signedIn',
    body: newPinSchema,
    answer: 'nothing',
    slowly: true,
  },
  'GET /session/own': {
    says: 'Where this person is signed in.',
    who: 'signedIn',
    answer: ownSessionsSchema,
  },
  'DELETE /session/others': {
    says: 'Every other session of this person has ended.',
    who: 'signedIn',
    answer: 'nothing',
  },
  'POST /yes': {
    says: 'A second person says yes by their PIN, without a change of who is signed in; entries of the next minutes carry its id.',
    who: 'signedIn',
    body: giveYesSchema,
    answer: yesSchema,
    status: 201,
    slowly: true,
  },
  ...listedRoutes('person'),
  'GET /team/access': {
    says: 'Who has a PIN, and until when a code that was handed out would do.',
    who: 'headOrOffice',
    answer: accessSchema,
  },
  'POST /team/people/{id}/code': {
    says: 'A one-time code for this person, shown once; their PIN is void and their sessions have ended.',
    who: 'headOrOffice',
    answer: handedCodeSchema,
    status: 201,
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
