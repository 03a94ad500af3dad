import { barSchema } from '@tempera/contract/bar';
import { benchSchema } from '@tempera/contract/calibration';
import { journalQuerySchema, newFactSchema, recordedFactSchema } from '@tempera/contract/journal';
import { policiesSchema, policyChangeSchema } from '@tempera/contract/policy';
import { problemSchema } from '@tempera/contract/problem';
import { sessionSchema, signInSchema, welcomeSchema } from '@tempera/contract/team';
import { z } from 'zod';
import { createDocument } from 'zod-openapi';

const json = (schema: z.ZodType, description: string) => ({ description, content: { 'application/json': { schema } } });
const refused = {
  description: 'Refused, with a sentence that says what to do (RFC 9457).',
  content: { 'application/problem+json': { schema: problemSchema } },
};
const csv = (description: string) => ({
  get: { responses: { '200': { description, content: { 'text/csv': { schema: z.string() } } }, default: refused } },
});

/** The API as an OpenAPI 3.1 document, generated from the contract's schemas. */
export function openApiDocument(): object {
  const journalPage = z.object({
    facts: z.array(recordedFactSchema),
    related: z.array(recordedFactSchema),
    nextBeforeSeq: z.int().nullable(),
  });
  return createDocument({
    openapi: '3.1.0',
    info: { title: 'Tempera', version: '1', description: 'The calibration desk of an espresso bar.' },
    servers: [{ url: '/api' }],
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'tempera_session' } },
    },
    security: [{ session: [] }],
    paths: {
      '/welcome': {
        get: { security: [], responses: { '200': json(welcomeSchema, 'Cafés, and the names to sign in with.') } },
      },
      '/session': {
        get: { responses: { '200': json(sessionSchema, 'Who is signed in, and where.'), default: refused } },
        post: {
          security: [],
          requestBody: json(signInSchema, 'A person and a PIN.'),
          responses: {
            '201': json(sessionSchema, 'Signed in; the session is in an http-only cookie.'),
            default: refused,
          },
        },
        delete: { responses: { '204': { description: 'Signed out.' } } },
      },
      '/bar': { get: { responses: { '200': json(barSchema, 'The bar as it stands.'), default: refused } } },
      '/house/policies': {
        get: { responses: { '200': json(policiesSchema, 'Policies, the version in force first.'), default: refused } },
        post: {
          requestBody: json(policyChangeSchema, 'The next version, with a reason. Safe to repeat.'),
          responses: { '201': json(policiesSchema, 'Changed.'), default: refused },
        },
      },
      '/benches/{grinderId}': {
        get: {
          requestParams: { path: z.object({ grinderId: z.uuid() }) },
          responses: { '200': json(benchSchema, 'The facts that a bench needs.'), default: refused },
        },
      },
      '/facts': {
        post: {
          requestBody: json(newFactSchema, 'A fact, with an id made by the device that saw it. Safe to repeat.'),
          responses: {
            '200': json(recordedFactSchema, 'Already kept.'),
            '201': json(recordedFactSchema, 'Kept.'),
            default: refused,
          },
        },
      },
      '/journal': {
        get: {
          requestParams: { query: journalQuerySchema },
          responses: { '200': json(journalPage, 'A page of the journal, newest first.'), default: refused },
        },
      },
      '/journal/shots.csv': csv('All shots as they now stand, oldest first.'),
      '/journal/moves.csv': csv('All collar moves as they now stand, oldest first.'),
      '/live': {
        get: {
          responses: {
            '200': {
              description: 'Server-sent events: `fact` carries a RecordedFact, `resync` asks to read everything again.',
              content: { 'text/event-stream': { schema: z.string() } },
            },
            default: refused,
          },
        },
      },
    },
  });
}
