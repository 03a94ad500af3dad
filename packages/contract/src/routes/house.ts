import { z } from 'zod';
import {
  findingsSchema,
  recipeChangeSchema,
  recipeHistorySchema,
  recipesQuerySchema,
  recipeVersionSchema,
} from '../house.ts';
import { policiesSchema, policyChangeSchema } from '../policy.ts';
import { routesOf } from '../route.ts';
import { searchQuerySchema, searchSchema } from '../search.ts';
import { pageOf } from '../sheet.ts';
import { listedRoutes } from './sheets.ts';

/** Every way to ask the room `house`. */
export const houseRoutes = {
  ...routesOf({
    'GET /house/policies': {
      says: 'Policies, the version in force first.',
      who: 'signedIn',
      answer: policiesSchema,
    },
    'POST /house/policies': {
      says: 'Policies with the next version, which carries a reason. Safe to repeat.',
      who: 'head',
      surely: true,
      body: policyChangeSchema,
      answer: policiesSchema,
      status: 201,
    },
    'GET /house/recipes': {
      says: 'A page of recipes.',
      who: 'signedIn',
      query: recipesQuerySchema,
      answer: pageOf(recipeVersionSchema),
    },
    'GET /house/recipes-in-force': {
      says: 'Recipes in force today.',
      who: 'signedIn',
      answer: z.object({ recipes: z.array(recipeVersionSchema) }),
    },
    'GET /house/recipes/{recipeId}': {
      says: 'Every version of a recipe, newest first.',
      who: 'signedIn',
      answer: recipeHistorySchema,
    },
    'POST /house/recipes/{recipeId}': {
      says: 'The recipe with its next version, which carries a reason. Safe to repeat.',
      who: 'head',
      body: recipeChangeSchema,
      answer: recipeHistorySchema,
      status: 201,
    },
    'GET /house/findings': { says: 'What does not go together.', who: 'signedIn', answer: findingsSchema },
    'GET /search': {
      says: 'Things of the house by name.',
      who: 'signedIn',
      query: searchQuerySchema,
      answer: searchSchema,
    },
  }),
  ...listedRoutes('drink'),
  ...listedRoutes('cafe'),
};
