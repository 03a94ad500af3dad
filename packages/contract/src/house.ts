import { z } from 'zod';
import { entityId } from './common.ts';

/** One version of a house recipe; a shot names the version it was judged by. */
export const recipeVersionSchema = z
  .object({
    id: entityId,
    recipeId: entityId,
    name: z.string(),
    version: z.int().positive(),
    doseG: z.number().positive(),
    doseToleranceG: z.number().positive(),
    yieldG: z.number().positive(),
    yieldToleranceG: z.number().positive(),
    timeMinS: z.number().positive(),
    timeMaxS: z.number().positive(),
    firstDropMinS: z.number().positive(),
    firstDropMaxS: z.number().positive(),
  })
  .meta({ id: 'RecipeVersion' });

export type RecipeVersion = z.infer<typeof recipeVersionSchema>;
