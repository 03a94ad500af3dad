import { barSchema, learnedSchema, planChangeSchema } from '@tempera/contract/bar';
import { bagSchema, bagsQuerySchema, coffeeUseSchema, stockSchema } from '@tempera/contract/coffee';
import {
  findingsSchema,
  recipeChangeSchema,
  recipeHistorySchema,
  recipesQuerySchema,
  recipeVersionSchema,
} from '@tempera/contract/house';
import { searchQuerySchema, searchSchema } from '@tempera/contract/search';
import { changeOf, keptOf } from '@tempera/contract/sheet';
import { sheetPaths, sheetSchemas, type SheetKind } from '@tempera/contract/sheets';
import { benchSchema } from '@tempera/contract/calibration';
import { journalQuerySchema, newFactSchema, newStepSchema, recordedFactSchema } from '@tempera/contract/journal';
import { openingHistorySchema } from '@tempera/contract/opening';
import { policiesSchema, policyChangeSchema } from '@tempera/contract/policy';
import { problemSchema } from '@tempera/contract/problem';
import { newCafeSchema, sessionSchema, signInSchema, unitsSchema, welcomeSchema } from '@tempera/contract/team';
import { z } from 'zod';
import { createDocument, type ZodOpenApiPathsObject } from 'zod-openapi';

const json = (schema: z.ZodType, description: string) => ({ description, content: { 'application/json': { schema } } });
const refused = {
  description: 'Refused, with a sentence that says what to do (RFC 9457).',
  content: { 'application/problem+json': { schema: problemSchema } },
};
const csv = (description: string) => ({
  get: { responses: { '200': { description, content: { 'text/csv': { schema: z.string() } } }, default: refused } },
});

const read = (schema: z.ZodType, description: string) => ({
  get: { responses: { '200': json(schema, description), default: refused } },
});
const pageOf = (schema: z.ZodType) => z.object({ rows: z.array(schema), total: z.int() });

/** The same three routes for every kind of sheet; bags are read a page at a time. */
function sheetDocuments(): ZodOpenApiPathsObject {
  const requestParams = { path: z.object({ id: z.uuid() }) };
  const paths = (Object.keys(sheetPaths) as SheetKind[]).flatMap((kind) => {
    const path = sheetPaths[kind];
    const kept = keptOf(sheetSchemas[kind]);
    const list = read(z.object({ sheets: z.array(kept) }), `Every ${kind}, those no longer in use too.`);
    const one = kind === 'bag' ? { get: { requestParams, ...read(bagSchema, 'One bag.').get } } : {};
    return [
      ...(kind === 'bag' ? [] : [[path, list] as const]),
      [
        `${path}/{id}`,
        {
          ...one,
          put: {
            requestParams,
            requestBody: json(changeOf(sheetSchemas[kind]), 'The whole sheet, based on a revision. Safe to repeat.'),
            responses: { '200': json(kept, 'Kept.'), default: refused },
          },
        },
      ] as const,
      [
        `${path}/{id}/revisions`,
        {
          get: {
            requestParams,
            responses: { '200': json(z.object({ revisions: z.array(kept) }), 'Newest first.'), default: refused },
          },
        },
      ] as const,
    ];
  });
  return Object.fromEntries<ZodOpenApiPathsObject[string]>(paths);
}

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
        get: {
          security: [],
          responses: {
            '200': json(sessionSchema.nullable(), 'Who is signed in, and where; null: nobody.'),
            default: refused,
          },
        },
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
      '/house/recipes': {
        get: {
          requestParams: { query: recipesQuerySchema },
          responses: { '200': json(pageOf(recipeVersionSchema), 'A page of recipes.'), default: refused },
        },
      },
      '/house/recipes-in-force': {
        get: {
          responses: {
            '200': json(z.object({ recipes: z.array(recipeVersionSchema) }), 'Recipes in force today.'),
            default: refused,
          },
        },
      },
      '/house/recipes/{recipeId}': {
        get: {
          requestParams: { path: z.object({ recipeId: z.uuid() }) },
          responses: { '200': json(recipeHistorySchema, 'Every version, newest first.'), default: refused },
        },
        post: {
          requestParams: { path: z.object({ recipeId: z.uuid() }) },
          requestBody: json(recipeChangeSchema, 'The next version, with a reason. Safe to repeat.'),
          responses: { '201': json(recipeHistorySchema, 'Written.'), default: refused },
        },
      },
      '/house/findings': read(findingsSchema, 'What does not go together.'),
      '/search': {
        get: {
          requestParams: { query: searchQuerySchema },
          responses: { '200': json(searchSchema, 'Things of the house by name.'), default: refused },
        },
      },
      '/coffee/stock': read(stockSchema, 'Coffees, and the bags that are not used up.'),
      '/coffee/use': read(coffeeUseSchema, 'Calibration against served.'),
      '/coffee/bags': {
        get: {
          requestParams: { query: bagsQuerySchema },
          responses: { '200': json(pageOf(bagSchema), 'A page of bags.'), default: refused },
        },
      },
      '/bar/learned': read(learnedSchema, 'What the shots of the last weeks taught.'),
      '/opening/history': read(openingHistorySchema, 'How long the jobs of an opening took.'),
      '/bar/plan': {
        put: {
          requestBody: json(planChangeSchema, 'The whole plan, as somebody moved it. Safe to repeat.'),
          responses: { '200': json(barSchema, 'The bar as it now stands.'), default: refused },
        },
      },
      '/cafe': {
        post: {
          security: [],
          requestBody: json(newCafeSchema, 'The first café of an empty database.'),
          responses: { '201': json(sessionSchema, 'Set up; its head barista is signed in.'), default: refused },
        },
      },
      '/session/units': {
        put: {
          requestBody: json(unitsSchema, 'What this person reads and types in.'),
          responses: { '200': json(sessionSchema, 'Changed.'), default: refused },
        },
      },
      ...sheetDocuments(),
      '/benches/{grinderId}': {
        get: {
          requestParams: { path: z.object({ grinderId: z.uuid() }) },
          responses: { '200': json(benchSchema, 'The facts that a bench needs.'), default: refused },
        },
      },
      '/facts': {
        post: {
          requestBody: json(
            z.union([newFactSchema, newStepSchema]),
            'A fact, with an id made by the device that saw it. Safe to repeat.',
          ),
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
      '/journal/grounds.csv': csv('All ground coffee that facts tell of, with where it went, oldest first.'),
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
